import { Tabs } from '../kit/Tabs'
import { Bench, BenchTitle } from '../shell/Bench'
import { ContactGrid } from '../shell/ContactGrid'
import { COUNTRY, EMAIL, LANE_WORD, NAME, NUMBER } from '../shell/columns'
import { useKeys } from '../shell/useKeys'
import { useShown } from '../shell/useShown'
import { DispatchView } from './DispatchView'
import { Editions } from './Editions'
import { PreflightPanel } from './PreflightPanel'

const COLUMNS = [NAME, NUMBER, EMAIL, COUNTRY, LANE_WORD]
const SEND_TABS = ['dispatch', 'files'] as const

/** Send: audiences that are kept at networks, and files of whoever is chosen. */
export function SendView() {
  const tab = useShown(SEND_TABS, (search) => (search.get('q') ? 'files' : 'dispatch'))
  useKeys({ v: () => tab.show(tab.shown === 'dispatch' ? 'files' : 'dispatch') })
  const tabs = (
    <Tabs
      label="Parts of Send"
      open={tab.shown}
      tabs={[
        ['dispatch', 'Dispatch'],
        ['files', 'Files'],
      ]}
      onOpen={tab.show}
    />
  )
  if (tab.shown === 'dispatch') return <DispatchView tabs={tabs} onMakeFile={() => tab.show('files')} />
  return (
    <Bench piles={['lane', 'country', 'line', 'batch']} advice={<PreflightPanel />}>
      <div className="-mx-5">{tabs}</div>
      <BenchTitle title="Files">of whoever is chosen; what would be refused stands on the right</BenchTitle>
      <Editions />
      <h2 className="pt-4 pb-2 text-[15px]">Who is chosen</h2>
      <ContactGrid columns={COLUMNS} />
    </Bench>
  )
}
