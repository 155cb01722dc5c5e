/** Parts of a stage; the open one is underlined. */
export function Tabs<T extends string>(props: {
  label: string
  open: T
  tabs: readonly (readonly [name: T, title: string])[]
  onOpen: (name: T) => void
}) {
  const { label, open, tabs, onOpen } = props
  return (
    <nav aria-label={label} className="mx-5 mb-3 flex gap-4 border-b border-line">
      {tabs.map(([name, title]) => (
        <button
          key={name}
          type="button"
          aria-pressed={name === open}
          className={`border-b-2 px-1 pb-1 font-semibold ${name === open ? 'border-moss text-ink' : 'border-transparent text-soft hover:text-ink'}`}
          onClick={() => onOpen(name)}
        >
          {title}
        </button>
      ))}
    </nav>
  )
}
