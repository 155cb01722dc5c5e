import type { CheckOf, CheckSettings, Piles } from '@upper-field/contract'

/** What is said of a check, by what it is of. */
export const CHECK_WORDS: Readonly<
  Record<
    CheckOf,
    {
      readonly one: string
      readonly many: string
      readonly service: string
      readonly free: string
      readonly none: string
      readonly why: string
    }
  >
> = {
  numbers: {
    one: 'number',
    many: 'numbers',
    service: 'line register',
    free: 'An answer of “unknown” is free.',
    none: 'Line types here are those of the numbering plans. Whether a number rings, and what it is where fixed lines and mobiles share their numbers, only a register knows.',
    why: 'In some plans fixed lines and mobiles share their numbers. Only the register tells them apart, and which are out of service.',
  },
  addresses: {
    one: 'address',
    many: 'addresses',
    service: 'e-mail verifier',
    free: 'What is unknown, or of a host that takes everything, is free.',
    none: 'Syntax, roles, free hosts and throwaway hosts are told here for nothing. Whether an address takes mail only a verifier knows.',
    why: 'Mail that comes back harms whoever sends it. A host that takes everything tells nothing of the one letter box.',
  },
  'do-not-call': {
    one: 'number',
    many: 'numbers',
    service: 'do-not-call registers',
    free: 'Numbers that no register is kept for are free.',
    none: 'Whether somebody has asked not to be called only the registers know.',
    why: 'Whom a register holds is suppressed for calls in every list: still to be texted where they may be, and in audiences.',
  },
}

const DEAD_OR_FIXED = (key: string): boolean => {
  const [type = '', status = ''] = key.split('/')
  return type !== 'unknown' && (status === 'out-of-service' || type === 'fixed')
}

/** How many of those counted would be written to in vain, and what that would have cost, in millionths of a euro. */
export function inVain(
  of: Exclude<CheckOf, 'do-not-call'>,
  piles: Pick<Piles, 'lines' | 'addresses'>,
  settings: CheckSettings,
) {
  const counts = of === 'numbers' ? piles.lines : piles.addresses
  const isVain = of === 'numbers' ? DEAD_OR_FIXED : (key: string) => key.endsWith('/undeliverable')
  const contacts = Object.entries(counts).reduce((sum, [key, n]) => sum + (isVain(key) ? n : 0), 0)
  return { contacts, cost: contacts * (of === 'numbers' ? settings.textPrice : settings.mailPrice) }
}
