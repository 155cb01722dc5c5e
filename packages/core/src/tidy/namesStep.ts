import { fold } from '../table'
import type { ChangeCode } from './changes'
import { isCompany } from './companyInName'
import { change, type Draft, type RunStep } from './draft'
import { readEmails } from './emails'
import { takeAsides } from './nameAsides'
import { mendNameCase } from './nameCase'
import { inSpokenOrder, isPlainName, takeNameApart, withoutDecorations } from './nameParts'
import { addTo, all, type Bench, type Column, type Of, onColumn } from './stepBench'

/** Names: what is none of them comes out, each thing into the column it belongs to; then order and capitals. */
export function namesStep(step: Of<'names'>, bench: Bench): RunStep | null {
  const { options } = step
  const { columns } = bench
  const known = ['full-name', 'given-name', 'family-name'].filter((name) => columns.find(name) !== -1)
  if (known.length === 0) return null
  const to = {
    company: { name: 'company', at: columns.need('company') },
    email: { name: 'email', at: columns.need('email') },
    role: { name: 'title', at: options.takesDecorations ? columns.need('title') : -1 },
    title: options.takesTitles ? columns.need('Name title') : -1,
    credentials: options.takesTitles ? columns.need('Credentials') : -1,
    nickname: options.takesDecorations ? columns.need('Nickname') : -1,
    remark: options.takesDecorations ? columns.need('Name remark') : -1,
  }
  // Filled by a person who parts two names that stood in one cell.
  if (columns.find('full-name') !== -1) columns.need('Second person')
  const mend = (draft: Draft, column: Column): void => {
    const now = () => draft.cells[column.at] ?? ''
    if (isPlainName(now())) return
    moveEmail(step, draft, column, to.email)
    if (column.name === 'full-name' && moveCompany(step, draft, column, to.company)) return
    if (options.takesDecorations) {
      moveAsides(step, draft, column, to)
      change(draft, step.id, column, 'name-decoration', withoutDecorations(now()))
    }
    if (options.takesTitles) moveTitles(step, draft, column, to)
    if (options.split && column.name === 'full-name') change(draft, step.id, column, 'name-order', inSpokenOrder(now()))
    if (options.mendsCase) change(draft, step.id, column, 'name-case', mendNameCase(now()))
  }
  return all(known.map((name) => onColumn(bench, name, mend)))
}

/** An address in the column of names, alone or behind one, is no name: it goes to the others, unless it is among them. */
function moveEmail({ id }: Of<'names'>, draft: Draft, column: Column, email: Column): void {
  const name = draft.cells[column.at] ?? ''
  if (draft.leftOut.has('name-email') || !name.includes('@')) return
  const words = name.split(/\s+/)
  const [written, ...others] = words.filter((word) => word.includes('@'))
  const [found] = written === undefined || others.length > 0 ? [] : readEmails(written)
  if (!found) return
  change(draft, id, column, 'name-email', words.filter((word) => word !== written).join(' '))
  const known = draft.cells[email.at] ?? ''
  if (!readEmails(known).some(({ address }) => address === found.address))
    change(draft, id, email, 'name-email', [known, found.address].filter(Boolean).join(', '))
}

/** A company in the column of names is the company, unless another is named. */
function moveCompany({ id }: Of<'names'>, draft: Draft, column: Column, company: Column): boolean {
  const name = draft.cells[column.at] ?? ''
  if (draft.leftOut.has('name-company') || !isCompany(name)) return false
  const known = draft.cells[company.at] ?? ''
  if (known !== '' && !isSame(known, name)) return false
  change(draft, id, column, 'name-company', '')
  if (known === '') change(draft, id, company, 'name-company', name)
  return true
}

const isSame = (a: string, b: string): boolean => fold(a).startsWith(fold(b)) || fold(b).startsWith(fold(a))

interface AsideColumns {
  readonly role: Column
  readonly nickname: number
  readonly remark: number
}

function moveAsides({ id }: Of<'names'>, draft: Draft, column: Column, to: AsideColumns): void {
  const asides = takeAsides(draft.cells[column.at] ?? '')
  if (asides.nickname === '' && asides.role === '' && asides.remark === '') return
  // A job that another cell names differently is a remark.
  const isRole = asides.role !== '' && !draft.cells[to.role.at]
  const code: ChangeCode = isRole ? 'name-role' : asides.nickname === '' ? 'name-remark' : 'name-nickname'
  if (draft.leftOut.has(code)) return
  change(draft, id, column, code, asides.name)
  if (asides.nickname !== '') addTo(draft, to.nickname, asides.nickname)
  if (isRole) change(draft, id, to.role, 'name-role', asides.role)
  else if (asides.role !== '') addTo(draft, to.remark, asides.role)
  if (asides.remark !== '') addTo(draft, to.remark, asides.remark)
}

function moveTitles(
  { id }: Of<'names'>,
  draft: Draft,
  column: Column,
  to: { readonly title: number; readonly credentials: number },
): void {
  const was = draft.cells[column.at] ?? ''
  const parts = takeNameApart(was)
  const take = (taken: string, at: number, code: 'name-title' | 'name-credentials', rest: string) => {
    if (taken === '' || draft.leftOut.has(code)) return
    change(draft, id, column, code, rest)
    addTo(draft, at, taken)
  }
  const behind = parts.credentials === '' ? '' : was.slice(was.indexOf(parts.name) + parts.name.length)
  take(parts.title, to.title, 'name-title', `${parts.name}${behind}`)
  take(parts.credentials, to.credentials, 'name-credentials', takeNameApart(draft.cells[column.at] ?? '').name)
}
