import { Tabs } from '../kit/Tabs'
import { Bench, BenchTitle } from '../shell/Bench'
import { ContactGrid } from '../shell/ContactGrid'
import {
  ADDRESS_STATE,
  COMPANY,
  COUNTRY,
  EMAIL,
  EMAIL_KIND_WORD,
  LINE_TYPE,
  NAME,
  NUMBER,
  STATUS,
  SUPPRESSED_FOR,
} from '../shell/columns'
import type { Pile } from '../shell/Sieve'
import { useKeys } from '../shell/useKeys'
import { AddressField } from './AddressField'
import { AnswerAgesLine } from './AnswerAgesLine'
import { CheckPrice } from './CheckPrice'
import { CountryTable } from './CountryTable'
import { DoNotCallTable } from './DoNotCallTable'
import { LineField } from './LineField'
import { CHECK_TABS, useCheckTab } from './useCheckTab'

const LINES = [NAME, COMPANY, NUMBER, LINE_TYPE, STATUS]
const COUNTRIES = [NAME, COUNTRY, NUMBER, LINE_TYPE, STATUS]
const ADDRESSES = [NAME, COMPANY, EMAIL, EMAIL_KIND_WORD, ADDRESS_STATE]

const CALLS = [NAME, COUNTRY, NUMBER, LINE_TYPE, SUPPRESSED_FOR]

const PILES: Readonly<Record<(typeof CHECK_TABS)[number], readonly Pile[]>> = {
  lines: ['line', 'status', 'call', 'country', 'batch'],
  countries: ['country', 'line', 'status', 'batch'],
  addresses: ['address', 'kind', 'sure', 'country', 'batch'],
  'do-not-call': ['suppressed', 'country', 'call', 'lane', 'batch'],
}

const CHECK_OF_TAB = {
  lines: 'numbers',
  countries: 'numbers',
  addresses: 'addresses',
  'do-not-call': 'do-not-call',
} as const

/** Check: what each number and address is, whether it reaches anybody, and what asking costs. */
export function CheckView() {
  const tab = useCheckTab()
  useKeys({ v: () => tab.show(CHECK_TABS[(CHECK_TABS.indexOf(tab.shown) + 1) % CHECK_TABS.length] ?? 'lines') })
  return (
    <Bench piles={PILES[tab.shown]} advice={<CheckPrice key={tab.shown} of={CHECK_OF_TAB[tab.shown]} />}>
      <div className="-mx-5">
        <Tabs
          label="Parts of Check"
          open={tab.shown}
          tabs={[
            ['lines', 'Lines'],
            ['countries', 'By country'],
            ['addresses', 'Addresses'],
            ['do-not-call', 'Do not call'],
          ]}
          onOpen={tab.show}
        />
      </div>
      {tab.shown === 'lines' ? (
        <>
          <BenchTitle title="What kind of line, and does it ring?">the best number of each contact</BenchTitle>
          <LineField />
          <AnswerAgesLine of="numbers" />
          <ContactGrid columns={LINES} canSort />
        </>
      ) : null}
      {tab.shown === 'countries' ? (
        <>
          <BenchTitle title="Where the lines are">the best number of each contact</BenchTitle>
          <CountryTable />
          <ContactGrid columns={COUNTRIES} canSort />
        </>
      ) : null}
      {tab.shown === 'addresses' ? (
        <>
          <BenchTitle title="What kind of address, and does it take mail?">the best address of each contact</BenchTitle>
          <AddressField />
          <AnswerAgesLine of="addresses" />
          <ContactGrid columns={ADDRESSES} />
        </>
      ) : null}
      {tab.shown === 'do-not-call' ? (
        <>
          <BenchTitle title="Who has asked not to be called?">
            numbers of each country, by what the registers say
          </BenchTitle>
          <DoNotCallTable />
          <ContactGrid columns={CALLS} canSort />
        </>
      ) : null}
    </Bench>
  )
}
