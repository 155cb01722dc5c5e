import { type DragEvent, useRef, useState } from 'react'
import { Button } from '../kit/Button'

/** Drop, choose or paste: each gives files. */
export function DropZone({ onFiles }: { onFiles: (files: readonly File[]) => void }) {
  const input = useRef<HTMLInputElement>(null)
  const [isOver, setOver] = useState(false)
  const [pasted, setPasted] = useState<string | null>(null)
  const drop = (event: DragEvent) => {
    event.preventDefault()
    setOver(false)
    const files = [...event.dataTransfer.files]
    if (files.length > 0) onFiles(files)
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
          Choose files
        </Button>
        <Button onClick={() => setPasted(pasted === null ? '' : null)} aria-expanded={pasted !== null}>
          Paste
        </Button>
        <span className="text-soft">or drop them here: CSV, workbooks (.xlsx, .xls, .ods), vCards, JSON.</span>
      </div>
      <input
        ref={input}
        type="file"
        multiple
        aria-label="Files"
        className="sr-only"
        tabIndex={-1}
        onChange={({ target }) => {
          onFiles([...(target.files ?? [])])
          target.value = ''
        }}
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
            onClick={() => onFiles([new File([pasted], 'pasted.txt', { type: 'text/plain' })])}
          >
            Look at it
          </Button>
        </div>
      ) : null}
    </section>
  )
}
