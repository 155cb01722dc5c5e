import type { BodyOf } from '@upper-field/contract'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { CountrySelect } from '../bring/CountrySelect'
import { Button } from '../kit/Button'
import { SelectField, TextArea, TextField } from '../kit/Field'
import { Notice } from '../kit/Notice'
import { Refused } from '../shell/Answer'
import { useListView } from '../shell/useListView'
import { plural } from '../words/format'
import { addressesIn } from './addressesIn'
import { usePlanHarvestMutation, useStartHarvestMutation } from './harvestApi'
import { planText, unreadText } from './harvestText'

type Planned = BodyOf<'planHarvest'>

/** Of one site. */
const MOST_PAGES = 200

/** What is to be read, and what that comes to before it begins. */
export function NewHarvestForm({ listId }: { listId: string }) {
  const { text: filter } = useListView()
  const navigate = useNavigate()
  const [from, setFrom] = useState<'addresses' | 'contacts'>('addresses')
  const [addresses, setAddresses] = useState('')
  const [fileProblem, setFileProblem] = useState<string | null>(null)
  const [opened, setOpened] = useState<{ file: File; headings: readonly string[]; column: number } | null>(null)
  const [follow, setFollow] = useState<Planned['follow']>('contact')
  const [pages, setPages] = useState('6')
  const [country, setCountry] = useState<string | null>(null)
  const [name, setName] = useState('Public pages')
  const [plan, planned] = usePlanHarvestMutation()
  const [start, started] = useStartHarvestMutation()
  // Blank lines stay: what cannot be read is told by its line.
  const lines = addresses.trimEnd().split('\n')
  const source: Planned['source'] =
    from === 'contacts' ? { from: 'contacts', filter } : { from: 'addresses', addresses: lines }
  const pagesPerSite = Math.max(1, Math.min(MOST_PAGES, Math.round(Number(pages)) || 1))
  const body = { source, follow, pagesPerSite, country }
  const isEmpty = from === 'addresses' && addresses.trim() === ''
  // What was told of other addresses, or of other contacts, is no plan of these.
  const isOfThese = JSON.stringify(planned.originalArgs?.body) === JSON.stringify(body)
  const told = isOfThese ? planned.data : undefined
  const takeFile = async (file: File, column: number | null = null) => {
    const read = await addressesIn(file, column).catch(() => ({ problem: 'This file breaks off.' }))
    setFileProblem(read.problem)
    if (!('addresses' in read)) return
    setOpened({ file, headings: read.headings, column: read.column })
    setAddresses(read.addresses.join('\n'))
  }
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={async (event) => {
        event.preventDefault()
        if (!told) return void plan({ params: { listId }, body })
        const made = await start({ params: { listId }, body: { ...body, name } })
        if (made.data) navigate(`/lists/${listId}/bring/pages/${made.data.id}`)
      }}
    >
      <h1>Read pages for numbers</h1>
      <p className="text-soft">
        What businesses publish about how to reach them: numbers and addresses, each with its page. Every site’s
        robots.txt is obeyed, and one page of a site is read at a time.
      </p>
      <fieldset className="flex flex-wrap gap-4">
        <legend className="pb-1 font-semibold">Which pages</legend>
        {(
          [
            ['addresses', 'Addresses'],
            [
              'contacts',
              filter === '' ? 'The sites of all contacts of this list' : `The sites of whom “${filter}” chooses`,
            ],
          ] as const
        ).map(([value, label]) => (
          <label key={value} className="flex items-center gap-2">
            <input
              type="radio"
              name="from"
              className="accent-moss"
              checked={from === value}
              onChange={() => setFrom(value)}
            />
            {label}
          </label>
        ))}
      </fieldset>
      {from === 'addresses' ? (
        <>
          <TextArea
            label="Addresses"
            rows={4}
            value={addresses}
            placeholder={'larch-campsite.example\nhttps://heron-lodge.example/contact'}
            hint="One to a line, at most 10,000; a name alone will do."
            onChange={(event) => setAddresses(event.target.value)}
          />
          <label className="text-[13px] text-soft">
            Or those of a file’s column:{' '}
            <input
              type="file"
              aria-label="A file with addresses"
              onChange={(event) => {
                const [file] = event.target.files ?? []
                if (file) void takeFile(file)
              }}
            />
          </label>
          {opened ? (
            <SelectField
              label="Column of the file"
              value={opened.column}
              onChange={(event) => void takeFile(opened.file, Number(event.target.value))}
            >
              {opened.headings.map((heading, at) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: columns of a file keep their places, and headings repeat
                <option key={at} value={at}>
                  {heading}
                </option>
              ))}
            </SelectField>
          ) : null}
          {fileProblem ? <Notice tone="bad">{fileProblem}</Notice> : null}
        </>
      ) : null}
      <div className="grid grid-cols-3 gap-4">
        <SelectField
          label="Links to follow"
          value={follow}
          onChange={(event) => setFollow(event.target.value as Planned['follow'])}
        >
          <option value="contact">Contact and imprint pages</option>
          <option value="all">All pages of the site</option>
          <option value="none">None</option>
        </SelectField>
        <TextField
          label="Pages of a site, at most"
          type="number"
          min={1}
          max={MOST_PAGES}
          value={pages}
          disabled={follow === 'none'}
          onChange={(event) => setPages(event.target.value)}
        />
        <CountrySelect label="Dialled from" none="where each page tells" value={country} onChange={setCountry} />
      </div>
      <Refused by={isOfThese ? [planned] : []} />
      <Refused by={[started]} />
      {told ? (
        <section aria-label="Before it starts" className="rounded-small border border-line bg-surface px-4 py-3">
          <ul className="flex flex-col gap-1">
            {planText(told).map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          {told.unreadCount > 0 ? (
            <details className="pt-2 text-straw-ink">
              <summary>{plural(told.unreadCount, 'line')} cannot be read as an address, and are left out</summary>
              <ul className="pt-1 text-[13px]">
                {told.unread.map((one) => (
                  <li key={`${one.line} ${one.text}`}>{unreadText(one)}</li>
                ))}
              </ul>
            </details>
          ) : null}
          <div className="flex items-end gap-3 pt-3">
            <div className="w-72">
              <TextField label="Name" value={name} required onChange={(event) => setName(event.target.value)} />
            </div>
            <Button type="submit" look="main" disabled={started.isLoading || name.trim() === ''}>
              Read {plural(told.sites, 'site')}
            </Button>
          </div>
        </section>
      ) : (
        <div>
          <Button type="submit" look="main" disabled={isEmpty || (isOfThese && planned.isLoading)}>
            {isOfThese && planned.isLoading ? 'Asking the sites for their rules …' : 'Look what that comes to'}
          </Button>
        </div>
      )}
    </form>
  )
}
