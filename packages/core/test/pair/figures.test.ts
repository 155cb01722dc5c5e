import { beforeAll, describe, expect, it } from '@jest/globals'
import { type Paired, pairContacts } from '../../src/pair'
import { type Figures, figuresOf, type MadeUpList, madeUpList } from './madeUp'

const ROWS = 3000

interface Run {
  readonly list: MadeUpList
  readonly paired: Paired
  readonly figures: Figures
}

function runOf(seed: number): Run {
  const list = madeUpList(seed, ROWS)
  const paired = pairContacts(list.rows)
  const groups = paired.groups.map(({ members }) => members)
  return { list, paired, figures: figuresOf(list, groups, [...paired.toDecide]) }
}

describe.each([1, 2, 3])(
  'a list whose names, hosts, houses and towns stand in no word list, seed %d',
  (seed: number) => {
    let run: Run
    beforeAll(() => {
      run = runOf(seed)
      const { precision, recall, recallDecided, toDecidePerThousand } = run.figures
      console.log(
        `seed ${seed}: precision ${precision.toFixed(4)}, recall by itself ${recall.toFixed(3)}, with right decisions ${recallDecided.toFixed(3)}, ${toDecidePerThousand.toFixed(0)} to decide in a thousand rows`,
      )
    })

    it('joins almost nobody wrongly, and most by itself', () => {
      expect(run.figures.precision).toBeGreaterThanOrEqual(0.997)
      expect(run.figures.recall).toBeGreaterThanOrEqual(0.87)
    })

    it('leaves few to a person, and with them finds nearly all', () => {
      expect(run.figures.recallDecided).toBeGreaterThanOrEqual(0.985)
      expect(run.figures.toDecidePerThousand).toBeLessThanOrEqual(80)
    })

    it('joins no two people who only look alike', () => {
      const { rows, people } = run.list
      const alike = run.figures.wrong.filter(([a, b]) => {
        const [one, other] = [rows[a], rows[b]]
        const haveBirths =
          one?.birthDate && other?.birthDate && one.birthDate.slice(0, 4) !== other.birthDate.slice(0, 4)
        const haveHouses = one?.company && other?.company && one.domain !== other.domain
        return people[a] !== people[b] && (haveBirths || haveHouses)
      })
      expect(alike).toEqual([])
    })
  },
)
