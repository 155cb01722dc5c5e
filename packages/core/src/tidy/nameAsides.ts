import { isCredential } from './credentials'

/** What stands in a name and is none of it. */
export interface Asides {
  readonly name: string
  readonly nickname: string
  /** A job: what it says is for the column of titles. */
  readonly role: string
  readonly remark: string
}

/** Words that tell a job, in the languages lists come in; as beginnings of words. */
const ROLE =
  /(?:^|[^\p{L}])(?:manager|director|head of|chief|officer|c[efotm]o\b|cmo\b|coo\b|vp\b|vice president|president|owner|founder|co-founder|partner|sales|marketing|account|engineer|assistant|receptionist|supervisor|buyer|procurement|administrator|consultant|(?:\p{L}*leiter|\p{L}*leitung)|geschäftsführ|inhaber|vertrieb|einkauf|buchhalt|prokurist|vorstand|gérant|directeur|directrice|responsable|comptable|commercial|acheteur|director|gerente|jef[ea]\b|dueñ[oa]|ventas|compras|titolare|direttor|responsabile|amministrat|acquisti|vendite|eigenaar|verkoop|inkoop|directeur|dyrektor|kierownik|prezes|właściciel|ředitel|jednatel|müdür|sahibi|daglig leder|verkställande|salgs|sälj|директор|менеджер|бухгалтер|διευθυντ|社長|部長|課長|经理|主任)/iu
const PRONOUNS = /^(?:he|she|they|il|elle|er|sie)(?:\s*\/\s*\p{L}+){1,2}$/iu

const BRACKETED = /^(.*?)\s*[([{（【]([^()[\]{}（）【】]{1,80})[)\]}）】]\s*(.*)$/u
const QUOTED = /^(\S.*?)\s+(?:["“”„«»]|['‘’](?=\p{Lu}))(\p{L}[\p{L} .'’-]{0,24}?)(?:["“”«»]|['’](?=\s))\s+(\S.*)$/u
const BARRED = /^(\S[^|¦｜]*?)\s*[|¦｜]\s*(\S.*)$/u

/** Nicknames, jobs and remarks beside a name, each apart; those of a name that has none are empty. */
export function takeAsides(written: string): Asides {
  let asides: Asides = { name: written, nickname: '', role: '', remark: '' }
  if (!/[([{（【|¦｜"“”„«»'‘’]/u.test(written)) return asides
  const barred = BARRED.exec(asides.name)
  if (barred?.[1] && barred[2]) asides = withAside({ ...asides, name: barred[1] }, barred[2], false)
  for (let i = 0; i < 3; i++) {
    const found = BRACKETED.exec(asides.name)
    if (!found?.[2]) break
    const [, before = '', inside, behind = ''] = found
    const name = [before, behind].filter(Boolean).join(' ')
    // Brackets round the whole name, an honour in brackets, and how somebody is spoken of are no asides.
    if (name === '' || isCredential(inside) || PRONOUNS.test(inside.trim())) break
    asides = withAside({ ...asides, name }, inside, before !== '' && behind !== '')
  }
  const quoted = QUOTED.exec(asides.name)
  if (quoted?.[2]) asides = { ...asides, name: `${quoted[1]} ${quoted[3]}`, nickname: quoted[2] }
  return asides
}

function withAside(asides: Asides, text: string, isBetween: boolean): Asides {
  const aside = text.trim()
  if (ROLE.test(aside)) return { ...asides, role: [asides.role, aside].filter(Boolean).join(', ') }
  if (isBetween && /^\p{Lu}[\p{L}'’.-]{1,20}$/u.test(aside)) return { ...asides, nickname: aside }
  return { ...asides, remark: [asides.remark, aside].filter(Boolean).join(', ') }
}
