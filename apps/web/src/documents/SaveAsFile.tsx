/** A document as a file of its own. */
export function SaveAsFile({ text, name }: { text: string; name: string }) {
  return (
    <a
      className="inline-flex min-h-8 items-center rounded-small border border-edge bg-surface px-3 py-1 font-semibold hover:bg-lichen"
      href={`data:application/json;charset=utf-8,${encodeURIComponent(text)}`}
      download={name}
    >
      Save as a file
    </a>
  )
}
