// What must be on the machine before anything can run: Debian's packages and the npm packages of the lock file.
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { findBinaries } from './postgres.mjs'
import { fail, mustRun, ROOT, run } from './run.mjs'

const NODE_FROM = 20

/** Installs what is missing. `wantsBrowser` for the browser tests and the screenshots. */
export function setUp({ wantsBrowser }) {
  const major = Number(process.versions.node.split('.')[0])
  if (major < NODE_FROM) fail(`Node ${NODE_FROM} or newer is needed; this is ${process.version}.`)
  installDebianPackages(wantsBrowser)
  installNpmPackages()
}

export const CHROMIUM = '/usr/bin/chromium'

function installDebianPackages(wantsBrowser) {
  const missing = [
    ...(findBinaries() ? [] : ['postgresql']),
    ...(wantsBrowser && !existsSync(CHROMIUM) ? ['chromium'] : []),
    // The page about calls is tried as it stands.
    ...(wantsBrowser && run('sh', ['-c', 'command -v curl'], { quiet: true }).code !== 0 ? ['curl'] : []),
  ]
  if (missing.length === 0) return
  const command = `apt-get update && apt-get install -y --no-install-recommends ${missing.join(' ')}`
  if (run('sh', ['-c', 'command -v apt-get'], { quiet: true }).code !== 0)
    fail(`Missing: ${missing.join(', ')}. This machine has no apt-get; install them by its own means.`)
  if (process.getuid?.() !== 0)
    fail(
      `Missing: ${missing.join(', ')}. You may not install packages here; ask for this one command:\n\n  sudo sh -c '${command}'\n`,
    )
  console.log(`Installing ${missing.join(' and ')} …`)
  keepClusterFromBeingMade()
  const env = { DEBIAN_FRONTEND: 'noninteractive' }
  if (run('apt-get', ['update', '-qq'], { env, quiet: true }).code !== 0)
    fail('The package lists could not be fetched (apt-get update). Is the network there?')
  mustRun('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], { env, quiet: true })
  if (!findBinaries()) fail('PostgreSQL was installed but its programs are not in /usr/lib/postgresql.')
}

/** The package would make and start a cluster of its own; ours is private and needs none. */
function keepClusterFromBeingMade() {
  const folder = '/etc/postgresql-common/createcluster.d'
  if (findBinaries() || existsSync('/etc/postgresql-common/createcluster.conf')) return
  mkdirSync(folder, { recursive: true })
  writeFileSync(join(folder, 'upper-field.conf'), 'create_main_cluster = false\n')
}

/** `npm ci` once for each lock file. */
function installNpmPackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .update(process.version)
    .digest('hex')
  const stamp = join(ROOT, 'node_modules', '.upper-field-lock')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return
  console.log('Installing npm packages …')
  rmSync(stamp, { force: true })
  mustRun('npm', ['ci', '--ignore-scripts', '--include=dev', '--no-audit', '--no-fund', '--loglevel=error'], {
    quiet: true,
  })
  writeFileSync(stamp, lock)
}
