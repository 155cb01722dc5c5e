export function buildAll(options?: { wantsWeb?: boolean }): Promise<void>
