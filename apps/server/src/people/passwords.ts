import { dictionary } from '@zxcvbn-ts/language-common'
import { Problem } from '../http/problem'

/** Some 50,000 passwords that many people use, in small letters: what is tried first by whoever guesses. */
const COMMON: ReadonlySet<string> = new Set(
  (dictionary['passwords-common'] as string[]).map((one) => one.toLowerCase()),
)

/** Fewest letters of a common password that a longer one may not be made of. */
const SHORTEST_STEM = 4

/**
 * True for a password that is found by trying the common ones, also where it only has signs or digits around it, is
 * such a one twice, one sign again and again, or is made of what everybody knows of its owner.
 * @param about name and e-mail of the owner
 */
export function isGuessable(password: string, about: readonly string[]): boolean {
  const small = password.toLowerCase()
  const stem = small.replace(/^[^\p{L}]+|[^\p{L}]+$/gu, '')
  const half = small.slice(0, small.length / 2)
  if (COMMON.has(small) || (stem.length >= SHORTEST_STEM && COMMON.has(stem))) return true
  if (half.length >= SHORTEST_STEM && half.repeat(2) === small && COMMON.has(half)) return true
  if (new Set(small).size < 4) return true
  const known = about
    .flatMap((text) => text.toLowerCase().split(/[@\s.]+/))
    .filter((word) => word.length >= SHORTEST_STEM)
  const rest = known.reduce((text, word) => text.replaceAll(word, ''), small)
  return rest !== small && rest.replace(/[^\p{L}]/gu, '').length < SHORTEST_STEM
}

/** Throws a problem where a password is guessable. */
export function refuseGuessable(password: string, about: readonly string[]): void {
  if (isGuessable(password, about))
    throw new Problem(
      422,
      'common-password',
      'This password is among those that are guessed first. Take another: several words that only you put together.',
    )
}
