import { runCold } from './cold'

await runCold(async () => {
  const { readPhoneCell } = await import('@upper-field/core/phone')
  return ({ raw, country }) => readPhoneCell(raw, { country })
})
