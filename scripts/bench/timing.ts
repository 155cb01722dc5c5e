/** How often something is done for a median, where nothing else is said. */
const TIMES = 5

export async function seconds(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now()
  await work()
  return (performance.now() - start) / 1000
}

/** In milliseconds. @param work is told how often it was done before */
export async function median(work: (i: number) => Promise<unknown>, times = TIMES): Promise<number> {
  const taken: number[] = []
  for (let i = 0; i < times; i++) taken.push((await seconds(() => work(i))) * 1000)
  return taken.toSorted((a, b) => a - b)[Math.floor(times / 2)] ?? 0
}
