/** How postal codes are written, by country (ISO 3166-1 alpha-2). Leading zeros may have been lost where digits stand alone. */
const SHAPES: Readonly<Record<string, RegExp>> = {
  US: /^\d{5}(?:-\d{4})?$/,
  CA: /^[A-Z]\d[A-Z] ?\d[A-Z]\d$/i,
  GB: /^[A-Z]{1,2}\d[A-Z\d]? ?\d[A-Z]{2}$/i,
  IE: /^[A-Z]\d[\dW] ?[A-Z\d]{4}$/i,
  DE: /^(?:D-)?\d{5}$/i,
  AT: /^(?:A-)?[1-9]\d{3}$/i,
  CH: /^(?:CH-)?[1-9]\d{3}$/i,
  LI: /^94\d\d$/,
  FR: /^(?:F-)?\d{5}$/i,
  BE: /^(?:B-)?[1-9]\d{3}$/i,
  LU: /^(?:L-)?\d{4}$/i,
  NL: /^[1-9]\d{3} ?[A-Z]{2}$/i,
  ES: /^(?:E-)?(?:0[1-9]|[1-4]\d|5[0-2])\d{3}$/i,
  PT: /^\d{4}-\d{3}$/,
  IT: /^(?:I-)?\d{5}$/i,
  DK: /^(?:DK-)?\d{4}$/i,
  NO: /^(?:NO?-)?\d{4}$/i,
  SE: /^(?:SE?-)?\d{3} ?\d{2}$/i,
  FI: /^(?:FIN?-)?\d{5}$/i,
  PL: /^\d{2}-\d{3}$/,
  CZ: /^\d{3} ?\d{2}$/,
  SK: /^\d{3} ?\d{2}$/,
  HU: /^[1-9]\d{3}$/,
  RO: /^\d{6}$/,
  BG: /^[1-9]\d{3}$/,
  GR: /^\d{3} ?\d{2}$/,
  HR: /^[1-5]\d{4}$/,
  SI: /^[1-9]\d{3}$/,
  EE: /^\d{5}$/,
  LT: /^(?:LT-)?\d{5}$/i,
  LV: /^(?:LV-)\d{4}$/i,
  TR: /^(?:0[1-9]|[1-7]\d|8[01])\d{3}$/,
  RU: /^[1-6]\d{5}$/,
  UA: /^\d{5}$/,
  AU: /^\d{4}$/,
  NZ: /^\d{4}$/,
  ZA: /^\d{4}$/,
  IN: /^[1-9]\d{2} ?\d{3}$/,
  JP: /^〒?\d{3}-\d{4}$/,
  CN: /^\d{6}$/,
  SG: /^\d{6}$/,
  KR: /^\d{5}$/,
  MX: /^\d{5}$/,
  BR: /^\d{5}-\d{3}$/,
  AR: /^(?:[A-Z]\d{4}[A-Z]{3}|\d{4})$/i,
  IL: /^\d{7}$/,
}

/** True where a text is written as postal codes of the country are; null where their form is not known. */
export function isPostalCodeOf(text: string, country: string): boolean | null {
  const shape = SHAPES[country]
  return shape ? shape.test(text.trim()) : null
}

/** Countries whose codes can be told from those of most others by their form alone. */
export const POSTAL_COUNTRIES: readonly string[] = Object.keys(SHAPES)
