const TITLES =
  /^(?:mr|mrs|ms|miss|mx|dr|prof|professor|sir|dame|lord|lady|rev|herr|frau|hr|fr|mme|mlle|sr|sra|srta|sig|sig\.ra|dott|ing|dhr|mevr|dipl\.-ing|mag)\.?\s+(?=\S)/i
/** What they begin with, in both cases. */
const FIRST_LETTERS = 'mdpslrhfiMDPSLRHFI'

/** The title before a name, with the space behind it; null where there is none. */
export const titleBefore = (name: string): string | null =>
  FIRST_LETTERS.includes(name[0] ?? ' ') ? (TITLES.exec(name)?.[0] ?? null) : null
