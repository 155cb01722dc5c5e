import { type Dialect, type OpenedHead, openTable } from '@upper-field/core/table'

/** How much of a file is looked at before anything is sent. In bytes. */
const HEAD = 524_288

export interface HeadQuestion {
  readonly file: Blob
  readonly country: string | null
  readonly dialect: Partial<Dialect>
}

// The first look at a local file: never on the page's own thread, and nothing is sent anywhere.
self.addEventListener('message', async ({ data }: MessageEvent<HeadQuestion>) => {
  const head = new Uint8Array(await data.file.slice(0, HEAD).arrayBuffer())
  const opened: OpenedHead = openTable(head, {
    isWhole: data.file.size <= HEAD,
    country: data.country,
    dialect: data.dialect,
  })
  self.postMessage(opened)
})
