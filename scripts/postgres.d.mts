export interface Cluster {
  readonly port: number
  readonly wasRunning: boolean
  url(database: string): string
  stop(): void
  kill(): void
}
export function findBinaries(): string | null
export function startCluster(folder: string, options?: { port?: number }): Promise<Cluster>
export function ensureDatabase(cluster: Cluster, name: string): void
export function dropDatabase(cluster: Cluster, name: string): void
export function dropLeftovers(cluster: Cluster, prefixes: readonly string[]): void
export function freePort(): Promise<number>
