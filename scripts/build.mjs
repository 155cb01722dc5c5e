// Builds server, stand-ins and web client into their dist folders.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'
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
/** Starts a thread from a file of its own, which a bundle does not have. */
const OUTSIDE = ['tinypool']
/** Parts of packages that ask for Node's modules in the old way find this one. */
const REQUIRE = "import { createRequire as requireIn } from 'node:module'; const require = requireIn(import.meta.url);"

/** Bundles programs for Node the way all of ours are: with their packages, since one file is loaded sooner than a thousand. */
export const bundleForNode = (options) => build({ ...node, external: OUTSIDE, banner: { js: REQUIRE }, ...options })

export async function buildAll({ wantsWeb = true } = {}) {
  await bundleForNode({
    entryPoints: [
      'apps/server/src/main.ts',
      'apps/server/src/jobsProcess.ts',
      'apps/server/src/readingThread.ts',
      'apps/server/src/unpackProcess.ts',
    ],
    outdir: 'apps/server/dist',
    splitting: true,
    chunkNames: 'part-[hash]',
  })
  await bundleForNode({ entryPoints: ['apps/standins/src/main.ts'], outdir: 'apps/standins/dist' })
  if (!wantsWeb) return
  mustRun('npx', ['vite', 'build', 'apps/web', '--logLevel', 'warn'])
  compressAssets(join(ROOT, 'apps/web/dist/assets'))
}

/** Scripts and styles as they are sent: compressed once here, not at every call. */
function compressAssets(folder) {
  for (const name of readdirSync(folder).filter((one) => /\.(?:js|css)$/.test(one))) {
    const bytes = readFileSync(join(folder, name))
    const quality = { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } }
    writeFileSync(join(folder, `${name}.br`), brotliCompressSync(bytes, quality))
    writeFileSync(join(folder, `${name}.gz`), gzipSync(bytes))
  }
}

if (process.argv[1]?.endsWith('build.mjs')) await buildAll()
