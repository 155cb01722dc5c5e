// Starting programs, and what is told when something is missing.
import { spawn, spawnSync } from 'node:child_process'
import { fileURLToPath } from 'node:url'

export const ROOT = fileURLToPath(new URL('..', import.meta.url)).replace(/\/$/, '')

/** Runs a program to its end with its output shown; gives back its exit code. */
export function run(command, args, { env = {}, quiet = false, cwd = ROOT } = {}) {
  const result = spawnSync(command, args, {
    cwd,
    env: { ...process.env, ...env },
    stdio: quiet ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'],
    encoding: 'utf8',
    maxBuffer: 1 << 28,
  })
  return { code: result.status ?? 1, out: `${result.stdout ?? ''}${result.stderr ?? ''}` }
}

export function mustRun(command, args, options = {}) {
  const { code, out } = run(command, args, options)
  if (code !== 0) {
    if (out) console.error(out.slice(-4000))
    fail(`${command} ${args.join(' ')} ended with ${code}.`)
  }
}

/** Ends with one plain sentence about what is missing. */
export function fail(sentence) {
  console.error(`\n${sentence}`)
  process.exit(1)
}

/** A program that goes on in the background; `ready` resolves with the first line that matches. */
export function start(command, args, { env = {}, ready, name, shows = () => false, inGroup = true }) {
  const child = spawn(command, args, {
    cwd: ROOT,
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
    detached: inGroup,
  })
  let told = ''
  const whenReady = new Promise((resolve, reject) => {
    const listen = (chunk) => {
      told = (told + chunk).slice(-20000)
      for (const line of String(chunk).split('\n')) {
        if (shows(line)) console.log(line)
        const match = ready.exec(line)
        if (match) resolve(match)
      }
    }
    child.stdout.on('data', listen)
    child.stderr.on('data', listen)
    child.once('exit', (code) => reject(new Error(`${name} ended with ${code}.\n${told.slice(-3000)}`)))
  })
  whenReady.catch(() => {})
  const ended = new Promise((resolve) => child.once('exit', resolve))
  return {
    child,
    whenReady,
    ended,
    told: () => told,
    stop: async () => {
      if (child.exitCode === null && child.signalCode === null) child.kill('SIGTERM')
      await ended
    },
  }
}
