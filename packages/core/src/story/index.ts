export { type StoryEntry, tellStory } from './tellStory'
export { drawTerrace, RISERS, type Riser, STAGES, type Stage, type TerraceFacts, type TerraceStep } from './terrace'
