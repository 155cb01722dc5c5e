// One current picture of each main view, from the demo data.
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { buildAll } from './build.mjs'
import { dropDatabase, ensureDatabase, freePort, startCluster } from './postgres.mjs'
import { mustRun, ROOT, start } from './run.mjs'
import { CHROMIUM, setUp } from './setUp.mjs'
import { shippedServices } from './shippedServices.mjs'

const KEYS = Object.fromEntries(shippedServices().map((name) => [name, `key-${name}`]))
/** How much quicker than life the services answer. */
const SPEED = { STANDINS_SPEED: '30' }
const FOLDER = join(ROOT, 'docs', 'screenshots')
const HOME = join(ROOT, '.local', 'screenshots')

setUp({ wantsBrowser: true })
mkdirSync(FOLDER, { recursive: true })
mkdirSync(HOME, { recursive: true })
await buildAll()
const cluster = await startCluster(join(HOME, 'postgres'))
dropDatabase(cluster, 'pictures')
ensureDatabase(cluster, 'pictures')
const standIns = start('node', ['apps/standins/dist/main.js'], {
  name: 'The stand-ins',
  ready: /listen on (\S+)/,
  env: { STANDIN_KEYS: JSON.stringify(KEYS), ...SPEED },
})
const [, outside] = await standIns.whenReady
const server = start('node', ['apps/server/dist/main.js'], {
  name: 'The application',
  ready: /listens on (\S+)/,
  env: {
    DATABASE_URL: cluster.url('pictures'),
    PORT: String(await freePort()),
    SESSION_SECRET: 'pictures need a secret of forty characters',
    SEALING_SECRET: 'and another one to seal the keys of providers',
    ALLOW_PLAIN_HTTP: '1',
    DEMO: '1',
    ALLOW_PRIVATE_ADDRESSES: '1',
    LATE_ANSWER_SECONDS: '5',
    PAGE_DELAY_SECONDS: '0.05',
    EXAMPLE_WEB: outside,
    WEB_DIR: join(ROOT, 'apps/web/dist'),
  },
})
const browser = await chromium.launch({
  executablePath: CHROMIUM,
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
})
try {
  const [, url] = await server.whenReady
  const files = join(HOME, 'files')
  mustRun('npx', ['tsx', 'scripts/loadDemo.ts', url, outside, files, JSON.stringify(KEYS)], { env: SPEED })
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await takePictures(page, url, files)
} finally {
  await browser.close()
  await Promise.all([server.stop(), standIns.stop()])
  cluster.stop()
}

async function takePictures(page, url, files) {
  const picture = async (name) => {
    await page.waitForTimeout(700)
    await page.screenshot({ path: join(FOLDER, `${name}.png`) })
    console.log(name)
  }
  await page.goto(`${url}/sign-in`)
  await page.getByRole('button', { name: /^Enter as/ }).waitFor()
  await picture('sign-in')
  await page.getByRole('button', { name: /^Enter as/ }).click()
  await page.getByRole('link', { name: 'Autumn terraces' }).click()
  await page.waitForURL(/\/tidy/)
  const list = page.url().replace(/\/tidy.*/, '')
  const go = (place) => page.goto(`${list}/${place}`)

  await go('bring')
  const demoFiles = ['fair-badges.xlsx', 'quotation-requests.csv', 'customers.txt', 'opt-outs.json'].map((name) =>
    join(files, name),
  )
  await page.getByLabel('Files', { exact: true }).setInputFiles([demoFiles[0]])
  await page.getByText('The first rows, as they would be read').waitFor()
  await page.getByLabel('Source').selectOption('event')
  await picture('bring-in')
  await page.getByRole('button', { name: 'Cancel' }).click()
  await bringInDamaged(page)
  await page.getByRole('button', { name: 'Mend row 4' }).click()
  await picture('held-rows')

  await go('check')
  await page.getByRole('button', { name: /^Check [\d,]+ numbers/ }).click()
  // The demo has checked some before: what is waited for is this check.
  const pause = page.getByRole('button', { name: 'Pause' }).first()
  await pause.waitFor()
  await pause.waitFor({ state: 'detached', timeout: 60_000 })
  await picture('check')
  await go('check?show=addresses')
  await page.getByRole('button', { name: /^Check [\d,]+ addresses/ }).click()
  await page.getByText(/addresses asked about/).waitFor({ timeout: 60_000 })
  await picture('check-addresses')
  await go('fill')
  await page.getByText(/^done/).first().waitFor({ timeout: 120_000 })
  await picture('fill')
  await go('fill?show=trail')
  await page.getByRole('table', { name: 'Courses' }).getByRole('row').nth(7).click()
  await page.getByRole('region', { name: /^Course of / }).waitFor()
  await picture('trail')
  await go('fill')
  await page.emulateMedia({ colorScheme: 'dark' })
  await page.getByRole('button', { name: 'Sample' }).click()
  await page.getByText(/replayed on [0-9]+ who were asked of everyone/).waitFor({ timeout: 90_000 })
  await picture('sample-dark')
  await page.emulateMedia({ colorScheme: 'light' })
  await go('send')
  await page.getByRole('button', { name: 'Autumn terraces', exact: true }).click()
  await page.getByRole('button', { name: 'Prepare the next edition' }).click()
  await page.getByRole('region', { name: 'Next edition' }).waitFor({ timeout: 60_000 })
  await picture('send')
  await go('tidy')
  await page.getByRole('heading', { name: /need a hand/ }).waitFor()
  await picture('tidy')
  await go('tidy?step=company')
  await page.getByRole('checkbox', { name: 'Take the legal form off' }).uncheck()
  await page.getByText(/of the sample would come out otherwise/).waitFor()
  await picture('tidy-routine')
  await go('tidy?code=several-numbers')
  await page.getByRole('row').nth(3).click()
  await page.getByRole('region', { name: /^Story of/ }).waitFor()
  await picture('tidy-story')
  await page.emulateMedia({ colorScheme: 'dark' })
  await go('tidy?code=lost-zero')
  await page.getByRole('heading', { name: /need a hand/ }).waitFor()
  await picture('tidy-dark')
  await page.emulateMedia({ colorScheme: 'light' })
  await go('split')
  await picture('split')
  await go('pair')
  await page.getByText('to decide, likeliest first').waitFor({ timeout: 60_000 })
  await picture('pair')
  await page.goto(`${url}/lists`)
  await page.getByRole('complementary', { name: 'To do today' }).getByRole('listitem').first().waitFor()
  await picture('lists')
  await page.goto(`${url}/suppression`)
  await page.getByRole('heading', { name: 'Current customers' }).waitFor()
  await picture('suppression')
  await page.goto(`${url}/lists`)
  await page.getByRole('link', { name: 'Campsites on the web' }).click()
  await page.getByRole('link', { name: /^Bring in/ }).click()
  await page.getByRole('button', { name: 'Pages', exact: true }).click()
  await page.getByRole('link', { name: /^Members of the campsite association/ }).click()
  await page.getByRole('button', { name: /^sonnenhof-cafe-3/ }).click()
  await page.getByRole('region', { name: 'Text of the page' }).waitFor()
  await picture('pages')
  await page.emulateMedia({ colorScheme: 'dark' })
  await page.getByRole('link', { name: /^Bring in/ }).click()
  await page.getByRole('button', { name: 'Directory', exact: true }).click()
  await page.getByRole('combobox', { name: 'Trade' }).fill('guest')
  await page.getByRole('option', { name: /^Guest houses/ }).click()
  await page.getByRole('combobox', { name: 'Place' }).fill('austria')
  await page.getByRole('option', { name: 'Österreich', exact: true }).click()
  await page.getByRole('region', { name: 'Before it starts' }).waitFor()
  await picture('directory-dark')
  await page.emulateMedia({ colorScheme: 'light' })
}

/** A pasted list with rows that cannot be read. */
async function bringInDamaged(page) {
  await page.getByRole('button', { name: 'Paste' }).click()
  await page
    .getByLabel('Rows, with their headings')
    .fill(
      'Name,Phone,E-mail,Country\nTess Garside,07911 233441,tess@heron-lodge.example,GB\nno phone here\n"Never closed,07911 233442,x@heron-lodge.example,GB\nRhys Penrose,01865 555 221,rhys@heron-lodge.example,GB,one too many\nNia Haddow,O7911 233443,nia@heron-lodge.example,GB\n',
    )
  await page.getByRole('button', { name: 'Look at it' }).click()
  await page.getByLabel('Name of the batch').fill('Reception book')
  await page.getByRole('button', { name: /^Bring in/ }).click()
  await page.getByText('3 rows held').first().waitFor({ timeout: 20_000 })
}
