import { useLocation, useNavigate } from 'react-router'
import { Tabs } from '../kit/Tabs'
import { useListView } from '../shell/useListView'

const PARTS = [
  ['bring', 'Files'],
  ['bring/pages', 'Pages'],
  ['bring/directory', 'Directory'],
  ['bring/automations', 'Automations'],
] as const
type Part = (typeof PARTS)[number][0]

/** Where rows come from. */
export function BringTabs() {
  const { listId } = useListView()
  const navigate = useNavigate()
  const { pathname } = useLocation()
  const open = PARTS.map(([part]) => part).findLast((part) => pathname.includes(`/${part}`)) ?? 'bring'
  return (
    <Tabs<Part>
      label="Parts of Bring in"
      open={open}
      tabs={PARTS}
      onOpen={(part) => navigate(`/lists/${listId}/${part}`)}
    />
  )
}
