import type { ContactLine } from '@upper-field/contract'
import { Glyph } from '../kit/Glyph'
import { LaneName } from '../split/LaneName'
import { phone } from '../words/format'
import { ADDRESS, EMAIL_KIND, LANE_REASON, LINE, LINE_STATUS, SCOPE, VERDICT } from '../words/sentences'
import type { GridColumn } from './ContactGrid'

const Quiet = ({ children }: { children: string }) => <span className="text-soft">{children}</span>

export const NAME: GridColumn = {
  title: 'Name',
  width: 'minmax(0,1.5fr)',
  cell: (c) => (c.fullName ? <bdi>{c.fullName}</bdi> : <Quiet>no name</Quiet>),
}
export const COMPANY: GridColumn = {
  title: 'Company',
  width: 'minmax(0,1.6fr)',
  cell: (c) => (c.company ? <bdi>{c.company}</bdi> : <Quiet>—</Quiet>),
}
export const COUNTRY: GridColumn = { title: 'Country', width: '60px', cell: (c) => c.country || <Quiet>—</Quiet> }
export const WAS: GridColumn = {
  title: 'As it stood',
  width: 'minmax(0,1.5fr)',
  cell: (c) => (
    <span className="num text-[13px] text-soft">{c.rawNumber || (c.number ? 'found by a provider' : '—')}</span>
  ),
}
export const NUMBER: GridColumn = {
  title: 'Number',
  width: '184px',
  cell: (c) =>
    c.number ? (
      <>
        <Glyph type={c.lineType} />{' '}
        <span className={`num pl-1 text-[13px] ${c.lineStatus === 'out-of-service' ? 'text-beet line-through' : ''}`}>
          {phone(c.number)}
        </span>
        {c.lineStatus === 'out-of-service' ? <span className="sr-only"> out of service</span> : null}
      </>
    ) : (
      <Quiet>—</Quiet>
    ),
}
export const SUPPRESSED_FOR: GridColumn = {
  title: 'Not for',
  width: '120px',
  cell: (c) =>
    c.suppressedFor.length > 0 ? (
      <span className="text-beet">{c.suppressedFor.map((scope) => SCOPE[scope]).join(', ')}</span>
    ) : (
      <Quiet>—</Quiet>
    ),
}
export const EMAIL: GridColumn = { title: 'E-mail', width: 'minmax(0,1.5fr)', cell: (c) => c.email ?? <Quiet>—</Quiet> }

const VERDICT_TONE: Record<ContactLine['verdict'], string> = {
  clean: 'text-soft',
  repaired: 'text-moss font-semibold',
  doubtful: 'text-straw-ink font-semibold',
  unreadable: 'text-beet font-semibold',
  placeholder: 'text-straw-ink',
  empty: 'text-soft',
}
export const VERDICT_WORD: GridColumn = {
  title: 'Verdict',
  width: '88px',
  cell: (c) => <span className={VERDICT_TONE[c.verdict]}>{VERDICT[c.verdict]}</span>,
}

const STATUS_TONE: Record<ContactLine['lineStatus'], string> = {
  'in-service': '',
  'out-of-service': 'text-beet',
  unreachable: 'text-straw-ink',
  unknown: 'text-soft',
}
export const LINE_TYPE: GridColumn = {
  title: 'Line',
  width: '128px',
  cell: (c) => (LINE[c.lineType] ?? '').toLowerCase(),
}
export const STATUS: GridColumn = {
  title: 'Status',
  width: '106px',
  cell: (c) => (
    <span className={STATUS_TONE[c.lineStatus]}>
      {c.knownFrom === 'register' ? LINE_STATUS[c.lineStatus] : c.number ? 'not checked' : '—'}
    </span>
  ),
}
export const EMAIL_KIND_WORD: GridColumn = {
  title: 'Kind',
  width: '92px',
  cell: (c) => (c.emailKind === 'none' ? <Quiet>—</Quiet> : EMAIL_KIND[c.emailKind].toLowerCase()),
}
const ADDRESS_TONE: Partial<Record<ContactLine['emailState'], string>> = {
  'accept-all': 'text-straw-ink',
  undeliverable: 'text-beet',
  'not-checked': 'text-soft',
  none: 'text-soft',
}
export const ADDRESS_STATE: GridColumn = {
  title: 'Address',
  width: '148px',
  cell: (c) => <span className={ADDRESS_TONE[c.emailState] ?? ''}>{ADDRESS[c.emailState]}</span>,
}
export const LANE_WORD: GridColumn = { title: 'Lane', width: '80px', cell: (c) => <LaneName lane={c.lane} /> }
export const BECAUSE: GridColumn = {
  title: 'Because',
  width: 'minmax(156px,1.4fr)',
  cell: (c) => LANE_REASON[c.laneReason],
}
export const JOINED: GridColumn = {
  title: 'Rows',
  width: '60px',
  cell: (c) => <span className="num">{c.joined + 1}</span>,
}
export const SHARED: GridColumn = {
  title: 'Line held by',
  width: '110px',
  cell: (c) => (c.isShared ? <span className="text-straw-ink">several</span> : <Quiet>one person</Quiet>),
}
