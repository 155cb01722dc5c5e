import { STAGES } from '@upper-field/core/story'
import { Command } from 'cmdk'
import { Dialog } from 'radix-ui'
import { useMatch, useNavigate } from 'react-router'
import { useReadListsQuery } from '../api'
import { STAGE } from '../words/sentences'

const ITEM = 'rounded-small px-3 py-1.5 data-[selected=true]:bg-lichen cursor-pointer'

/** Everything by name: lists, stages of the open list, rooms. */
export function Palette({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  return (
    <Dialog.Root open={isOpen} onOpenChange={(open) => (open ? undefined : onClose())}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-24 z-50 w-[520px] max-w-[94vw] -translate-x-1/2 rounded-small border border-edge bg-surface shadow-xl"
        >
          <Dialog.Title className="sr-only">Palette</Dialog.Title>
          <Choices onClose={onClose} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}

function Choices({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate()
  const listId = useMatch('/lists/:listId/*')?.params.listId
  const { data: lists = [] } = useReadListsQuery({ query: { archived: 'no' } })
  const go = (to: string) => () => {
    onClose()
    void navigate(to)
  }
  return (
    <Command label="Go to">
      <Command.Input
        placeholder="Go to a list, a stage, a room …"
        className="w-full border-b border-line bg-transparent px-4 py-3 outline-none placeholder:text-soft"
      />
      <Command.List className="max-h-80 overflow-auto p-1">
        <Command.Empty className="px-3 py-2 text-soft">Nothing of this name.</Command.Empty>
        {listId
          ? STAGES.map((stage) => (
              <Command.Item
                key={stage}
                value={`stage ${STAGE[stage]}`}
                className={ITEM}
                onSelect={go(`/lists/${listId}/${stage}`)}
              >
                {STAGE[stage]} <span className="text-soft">in this list</span>
              </Command.Item>
            ))
          : null}
        {lists.map((list) => (
          <Command.Item
            key={list.id}
            value={`list ${list.name} ${list.id}`}
            className={ITEM}
            onSelect={go(`/lists/${list.id}`)}
          >
            {list.name} <span className="text-soft">list</span>
          </Command.Item>
        ))}
        {(['lists', 'providers', 'spend'] as const).map((room) => (
          <Command.Item key={room} value={`room ${room}`} className={ITEM} onSelect={go(`/${room}`)}>
            <span className="capitalize">{room}</span> <span className="text-soft">room</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  )
}
