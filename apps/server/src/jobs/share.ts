/** Told how much of something is done, from 0 to 1; throws to give it all up. */
export type OnShare = (share: number) => Promise<void>

/** Tells of one part among as many of the same length: the parts before it are done. */
export const partOf = (onShare: OnShare | undefined, part: number, parts: number): OnShare | undefined =>
  onShare && ((share) => onShare((part + share) / parts))
