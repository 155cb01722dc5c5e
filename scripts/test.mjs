// Everything that must hold: set-up, lint, types, unit, integration and browser tests, in this order.
import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { dropLeftovers, ensureDatabase, startCluster } from './postgres.mjs'
import { ROOT, run } from './run.mjs'
import { CHROMIUM, setUp } from './setUp.mjs'

const HOME = join(ROOT, '.local', 'test')
const only = process.argv[2]
let passed = 0
let failed = 0

setUp({ wantsBrowser: true })
mkdirSync(HOME, { recursive: true })
const { buildAll } = await import('./build.mjs')

step('lint', () => command('npx', ['biome', 'lint', '.']) && command('npx', ['biome', 'format', '.']))
step('types', () =>
  ['packages/core', 'tsconfig.node.json', 'apps/web'].every((project) => command('npx', ['tsc', '-p', project])),
)
step('unit', () => jest('unit'))
if (!only || only === 'integration' || only === 'browser') await withCluster()
console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed > 0 ? 1 : 0)

/** Database tests and browser tests share one cluster of their own. */
async function withCluster() {
  const cluster = await startCluster(join(HOME, 'postgres'))
  try {
    ensureDatabase(cluster, 'tests')
    dropLeftovers(cluster, ['test_', 'browser_'])
    await buildAll()
    const env = { TEST_CLUSTER_URL: cluster.url('tests') }
    step('integration', () => jest('integration', env))
    step('browser', () => playwright({ ...env, CHROMIUM }))
  } finally {
    cluster.stop()
  }
}

function step(name, work) {
  if (only && only !== name) return
  console.log(`\n— ${name}`)
  const before = failed
  const isGood = work()
  if (name === 'lint' || name === 'types') isGood ? passed++ : failed++
  else if (!isGood && failed === before) failed++
}

function command(program, args) {
  return run(program, args).code === 0
}

function jest(project, env = {}) {
  const report = join(HOME, `${project}.json`)
  rmSync(report, { force: true })
  const { code } = run(
    'npx',
    [
      'jest',
      '--selectProjects',
      project,
      '--json',
      `--outputFile=${report}`,
      `--maxWorkers=${project === 'integration' ? 3 : 2}`,
      ...(project === 'integration' ? ['--forceExit'] : []),
    ],
    {
      env: { ...env, NODE_OPTIONS: '--experimental-vm-modules --no-warnings' },
    },
  )
  const told = readReport(report)
  count(told?.numPassedTests ?? 0, (told?.numFailedTests ?? 0) + (told?.numRuntimeErrorTestSuites ?? 0))
  return code === 0 && told !== null && told.numPassedTests > 0
}

function playwright(env) {
  const report = join(HOME, 'browser.json')
  rmSync(report, { force: true })
  const { code } = run('npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts'], {
    env: { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: report },
  })
  const stats = readReport(report)?.stats
  count(stats?.expected ?? 0, (stats?.unexpected ?? 0) + (stats?.flaky ?? 0))
  return code === 0 && (stats?.expected ?? 0) > 0
}

function count(good, bad) {
  passed += good
  failed += bad
}

function readReport(path) {
  try {
    return JSON.parse(readFileSync(path, 'utf8'))
  } catch {
    return null
  }
}
