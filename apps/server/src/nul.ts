/** NUL in the text of JSON: as it is, or written out behind an even number of backslashes. The database has no place for it. */
const NULS = /\0|(?<!\\)((?:\\\\)*)\\u0000/g

export const holdsNul = (json: string): boolean => json.search(NULS) >= 0

export const withoutNul = (json: string): string => (holdsNul(json) ? json.replace(NULS, '$1') : json)
