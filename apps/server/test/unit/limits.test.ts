import { existsSync, readFileSync } from 'node:fs'
import { describe, expect, it } from '@jest/globals'
import { LIMITS } from '../../src/limits'

describe('the limits in docs/security.md', () => {
  const lines = readFileSync('docs/security.md', 'utf8')
    .split('\n')
    .filter((line) => /^\| `[A-Z_]+` \|/.test(line))

  it('are those of the code, all of them, with what they bound', () =>
    expect(lines).toEqual(
      Object.values(LIMITS).map(
        ({ setting, usual, unit, bounds }) =>
          `| \`${setting}\` | ${usual.toLocaleString('en')} | ${unit} | ${bounds} |`,
      ),
    ))

  it('name tests that exist', () => {
    const named = [...readFileSync('docs/security.md', 'utf8').matchAll(/`(\w+)\.test`/g)].map(([, name]) => name)
    expect(named.length).toBeGreaterThan(10)
    const places = [
      'apps/server/test/integration',
      'apps/server/test/unit',
      'packages/contract/test',
      'packages/files/test',
      'packages/core/test/tidy',
      'packages/core/test/send',
      'packages/core/test/connect',
      'apps/web/test/components',
    ]
    const isThere = (name: string | undefined) =>
      places.some((place) => existsSync(`${place}/${name}.test.ts`) || existsSync(`${place}/${name}.test.tsx`))
    expect(named.filter((name) => !isThere(name))).toEqual([])
  })
})
