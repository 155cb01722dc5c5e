import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliDecompressSync, gunzipSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { startTestServer, type TestServer } from './harness'

const DIST = join(process.cwd(), 'apps/web/dist')
const ASSETS = join(DIST, 'assets')
const scripts = readdirSync(ASSETS).filter((name) => name.endsWith('.js'))
const textOf = (name: string) => readFileSync(join(ASSETS, name), 'utf8')

let server: TestServer
beforeAll(async () => {
  server = await startTestServer({ WEB_DIR: DIST })
})
afterAll(() => server.stop())

describe('the web client', () => {
  const [entry = ''] = /assets\/index-[\w-]+\.js/.exec(readFileSync(join(DIST, 'index.html'), 'utf8')) ?? []

  it('loads each view when it is opened, and none before', () => {
    const views = scripts.filter((name) => /^\w+View-/.test(name)).map((name) => name.split('-')[0])
    expect(views.sort()).toEqual(
      [
        'AutomationsView',
        'BringView',
        'CheckView',
        'ConnectorView',
        'DestinationView',
        'DestinationsView',
        'DirectorySearchView',
        'DirectoryView',
        'FillView',
        'HarvestView',
        'ListsView',
        'PagesView',
        'PairView',
        'PeopleView',
        'ProgramsView',
        'ProvidersView',
        'SendView',
        'SignInView',
        'SpendView',
        'SplitView',
        'SuppressionView',
        'TidyView',
      ].sort(),
    )
    expect(textOf(entry.split('/')[1] ?? '')).not.toContain('Make a list')
  })

  it('has the data of the numbering plan once: its workers share it', () => {
    const plan = readFileSync('packages/core/src/phone/engine/planData.ts', 'utf8')
    const part = /'([A-Za-z0-9+/]{200})/.exec(plan)?.[1] ?? plan.slice(4000, 4200)
    expect(part).toHaveLength(200)
    expect(scripts.filter((name) => textOf(name).includes(part))).toHaveLength(1)
  })

  it.each([
    ['br', (bytes: Buffer) => brotliDecompressSync(bytes)],
    ['gzip', (bytes: Buffer) => gunzipSync(bytes)],
  ])('is sent compressed: %s', async (encoding, open) => {
    for (const name of scripts) {
      const suffix = encoding === 'br' ? 'br' : 'gz'
      expect(open(readFileSync(join(ASSETS, `${name}.${suffix}`))).toString()).toBe(textOf(name))
    }
    const response = await fetch(`${server.url}/${entry}`, { headers: { 'accept-encoding': encoding } })
    expect(response.headers.get('content-encoding')).toBe(encoding)
    expect(response.headers.get('cache-control')).toContain('immutable')
    expect(await response.text()).toBe(textOf(entry.split('/')[1] ?? ''))
  })

  it('says of a part that is gone that it is, and has nobody keep that', async () => {
    const response = await fetch(`${server.url}/assets/TidyView-gone.js`)
    expect(response.status).toBe(404)
    expect(response.headers.get('cache-control')).toBe('no-store')
    expect(response.headers.get('content-type')).not.toContain('html')
  })

  it('may be kept for a year only by the names of its parts, never as a page', async () => {
    const page = await fetch(`${server.url}/lists`)
    expect(page.headers.get('cache-control')).toBe('no-cache')
    expect(await page.text()).toContain(entry)
  })

  it('is sent as it is to whoever takes nothing else', async () => {
    const response = await fetch(`${server.url}/${entry}`, { headers: { 'accept-encoding': 'identity' } })
    expect(response.headers.get('content-encoding')).toBeNull()
    expect(await response.text()).toBe(textOf(entry.split('/')[1] ?? ''))
  })
})
