import type { SiteFinding } from '@upper-field/contract'

/** A part of a text: plain, or what was found there. */
export interface Segment {
  readonly text: string
  /** Which finding stands here, by its place in the table; null for plain text. */
  readonly finding: number | null
  /** Left out: it looks like a number and is none. */
  readonly isLeftOut: boolean
}

/** Cuts a text at what was found in it, and at what was left out. */
export function segmentsOf(
  text: string,
  findings: readonly Pick<SiteFinding, 'raw'>[],
  leftOut: readonly { readonly raw: string }[],
): readonly Segment[] {
  const places = [
    ...findings.flatMap(({ raw }, finding) => placesOf(text, raw).map((at) => ({ at, end: at + raw.length, finding }))),
    ...leftOut.flatMap(({ raw }) => placesOf(text, raw).map((at) => ({ at, end: at + raw.length, finding: null }))),
  ].sort((a, b) => a.at - b.at || b.end - a.end)
  const segments: Segment[] = []
  let done = 0
  for (const { at, end, finding } of places) {
    if (at < done) continue
    if (at > done) segments.push({ text: text.slice(done, at), finding: null, isLeftOut: false })
    segments.push({ text: text.slice(at, end), finding, isLeftOut: finding === null })
    done = end
  }
  if (done < text.length) segments.push({ text: text.slice(done), finding: null, isLeftOut: false })
  return segments
}

function placesOf(text: string, raw: string): readonly number[] {
  if (raw === '') return []
  const places: number[] = []
  for (let at = text.indexOf(raw); at >= 0; at = text.indexOf(raw, at + raw.length)) places.push(at)
  return places
}

/** Blocks that are shown of a page: those with something in them, and their neighbours. */
export function blocksShown(
  blocks: readonly string[],
  findings: readonly Pick<SiteFinding, 'raw'>[],
  leftOut: readonly { readonly raw: string }[],
): readonly { readonly text: string; readonly segments: readonly Segment[]; readonly isNear: boolean }[] {
  const cut = blocks.map((text) => ({ text, segments: segmentsOf(text, findings, leftOut) }))
  const holds = cut.map(({ segments }) => segments.some(({ finding, isLeftOut }) => finding !== null || isLeftOut))
  return cut.map((one, at) => ({ ...one, isNear: [at - 1, at, at + 1].some((near) => holds[near] === true) }))
}
