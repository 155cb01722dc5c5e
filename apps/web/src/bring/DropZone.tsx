import { type DragEvent, useRef, useState } from 'react'
import { Button } from '../kit/Button'

/** Drop, choose or paste: each gives a file. */
export function DropZone({ onFile }: { onFile: (file: File) => void }) {
  const input = useRef<HTMLInputElement>(null)
  const [isOver, setOver] = useState(false)
  const [pasted, setPasted] = useState<string | null>(null)
  const drop = (event: DragEvent) => {
    event.preventDefault()
    setOver(false)
    const [file] = event.dataTransfer.files
    if (file) onFile(file)
  }
  return (
    <section
      aria-label="Bring in a file"
      onDragOver={(event) => {
        event.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
      className={`mt-6 rounded-small border border-dashed p-5 ${isOver ? 'border-moss bg-lichen' : 'border-edge'}`}
    >
      <div className="flex flex-wrap items-center gap-3">
        <Button look="main" onClick={() => input.current?.click()}>
          Choose a CSV
        </Button>
        <Button onClick={() => setPasted(pasted === null ? '' : null)} aria-expanded={pasted !== null}>
          Paste
        </Button>
        <span className="text-soft">or drop it here. Commas, semicolons or tabs; UTF-8 or Windows-1252.</span>
      </div>
      <input
        ref={input}
        type="file"
        accept=".csv,.tsv,.txt,text/csv,text/plain"
        aria-label="CSV file"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => event.target.files?.[0] && onFile(event.target.files[0])}
      />
      {pasted !== null ? (
        <div className="flex flex-col items-start gap-2 pt-4">
          <label htmlFor="pasted" className="font-semibold">
            Rows, with their headings
          </label>
          <textarea
            id="pasted"
            value={pasted}
            onChange={(event) => setPasted(event.target.value)}
            rows={7}
            className="num w-full rounded-small border border-edge bg-surface p-2 text-[13px]"
          />
          <Button
            disabled={pasted.trim() === ''}
            onClick={() => onFile(new File([pasted], 'pasted.csv', { type: 'text/csv' }))}
          >
            Look at it
          </Button>
        </div>
      ) : null}
    </section>
  )
}
