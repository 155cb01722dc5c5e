// Builds server, stand-ins and web client into their dist folders.
import { build } from 'esbuild'
import { mustRun, ROOT } from './run.mjs'

const node = {
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  logLevel: 'warning',
  sourcemap: false,
  absWorkingDir: ROOT,
}
/** Our own workspaces are bundled, everything from npm stays where it is. */
const external = {
  name: 'external',
  setup: (b) =>
    b.onResolve({ filter: /^[^./]/ }, (args) =>
      args.path.startsWith('@upper-field/') || args.kind === 'entry-point' ? null : { path: args.path, external: true },
    ),
}

/** Bundles programs for Node the way all of ours are. */
export const bundleForNode = ({ plugins = [], ...options }) =>
  build({ ...node, plugins: [...plugins, external], ...options })

export async function buildAll({ wantsWeb = true } = {}) {
  await bundleForNode({
    entryPoints: ['apps/server/src/main.ts', 'apps/server/src/jobsThread.ts'],
    outdir: 'apps/server/dist',
    splitting: true,
    chunkNames: 'part-[hash]',
  })
  await bundleForNode({ entryPoints: ['apps/standins/src/main.ts'], outdir: 'apps/standins/dist' })
  if (wantsWeb) mustRun('npx', ['vite', 'build', 'apps/web', '--logLevel', 'warn'])
}

if (process.argv[1]?.endsWith('build.mjs')) await buildAll()
