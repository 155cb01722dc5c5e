/** How long an answer took, as it is read; a dash where none came. */
export function waitText(milliseconds: number | null): string {
  if (milliseconds === null) return '–'
  const seconds = milliseconds / 1000
  if (seconds < 10) return `${seconds.toFixed(1)} s`
  if (seconds < 90) return `${Math.round(seconds)} s`
  return `${Math.round(seconds / 60)} min`
}
