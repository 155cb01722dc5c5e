import { STAGES } from '@upper-field/core/story'
import { Command } from 'cmdk'
import { Dialog } from 'radix-ui'
import { useDeferredValue, useState } from 'react'
import { useMatch, useNavigate } from 'react-router'
import { useReadListsQuery } from '../api'
import { STAGE } from '../words/sentences'
import { LookedUpItems, looksLikeReach } from './LookedUpItems'
import { ROOMS, useOwnRooms } from './rooms'

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
  const [text, setText] = useState('')
  const typed = useDeferredValue(text.trim())
  const go = (to: string) => () => {
    onClose()
    void navigate(to)
  }
  const isLookedUp = looksLikeReach(typed)
  return (
    // What was looked up fits whatever was typed: it is not filtered by its words.
    <Command label="Go to" shouldFilter={!isLookedUp}>
      <Command.Input
        value={text}
        onValueChange={setText}
        placeholder="Go to a list, a stage, a room; or paste a number or an address"
        className="w-full border-b border-line bg-transparent px-4 py-3 outline-none placeholder:text-soft"
      />
      <Command.List className="max-h-80 overflow-auto p-1">
        {isLookedUp ? (
          <LookedUpItems text={typed} itemClass={ITEM} onOpen={(to) => go(to)()} />
        ) : (
          <Rooms listId={listId} go={go} />
        )}
      </Command.List>
    </Command>
  )
}

/** Everything that can be gone to by its name. */
function Rooms({ listId, go }: { listId: string | undefined; go: (to: string) => () => void }) {
  const { data: lists = [] } = useReadListsQuery({ query: { archived: 'no' } })
  const rooms = [...ROOMS, ...useOwnRooms()]
  return (
    <>
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
      {rooms.map(([to, name]) => (
        <Command.Item key={to} value={`room ${name}`} className={ITEM} onSelect={go(to)}>
          {name} <span className="text-soft">room</span>
        </Command.Item>
      ))}
    </>
  )
}
