/** Lower case without accents, so that `oceane` finds `Océane`. */
export const fold = (text: string): string =>
  /\P{ASCII}/u.test(text) ? text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase() : text.toLowerCase()
