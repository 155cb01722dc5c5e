// Bundles the benches as the application is bundled, then runs them: what is timed is what ships.
import { spawnSync } from 'node:child_process'
import { join, resolve } from 'node:path'
import { bundleForNode } from './build.mjs'
import { ROOT } from './run.mjs'

const outdir = join(ROOT, '.local', 'bench', 'code')
await bundleForNode({
  entryPoints: ['scripts/bench/main.ts', 'scripts/bench/coldOurs.ts', 'scripts/bench/coldReference.ts'],
  outdir,
  // What is timed while it loads must not be loaded before.
  splitting: true,
  // Our own scripts are run where they stand: they know their folder.
  plugins: [
    {
      name: 'scripts',
      setup: (b) =>
        b.onResolve({ filter: /\.mjs$/ }, (args) => ({ path: resolve(args.resolveDir, args.path), external: true })),
    },
  ],
})
const { status } = spawnSync('node', [join(outdir, 'main.js'), ...process.argv.slice(2)], {
  cwd: ROOT,
  stdio: 'inherit',
})
process.exit(status ?? 1)
