/**
 * A card of version 2.1 (versit Consortium, 1996) as one of 3.0: type words become parameters, quoted-printable text
 * becomes plain, and the commas that 2.1 leaves alone are escaped.
 */
export function asVersion3(card: string): string {
  return unfolded(card)
    .map((line) => (/^VERSION:/i.test(line) ? 'VERSION:3.0' : propertyAs3(line)))
    .join('\r\n')
}

/** Lines with what belongs to them: quoted-printable text goes on behind a sign of equality, other text behind a blank. */
function unfolded(card: string): string[] {
  const lines: string[] = []
  let isQuoted = false
  for (const line of card.split(/\r\n|\n|\r/)) {
    const last = lines.length - 1
    if (isQuoted && lines[last]?.endsWith('=')) lines[last] = lines[last].slice(0, -1) + line
    else if (/^[ \t]/.test(line) && last >= 0) lines[last] += line.trimStart()
    else {
      lines.push(line)
      isQuoted = /^[^:]*;(?:ENCODING=)?QUOTED-PRINTABLE/i.test(line)
    }
  }
  return lines
}

const NAMED = /^(?:TYPE|VALUE|LANGUAGE|PREF|ENCODING|CHARSET)=/i
const ENCODINGS = /^(?:QUOTED-PRINTABLE|8BIT|7BIT|BASE64)$/i

function propertyAs3(line: string): string {
  const colon = line.indexOf(':')
  if (colon === -1) return line
  const [name = '', ...parameters] = line.slice(0, colon).split(';')
  if (/^(?:BEGIN|END)$/i.test(name)) return line
  const value = line.slice(colon + 1)
  const isQuoted = parameters.some((one) => /QUOTED-PRINTABLE/i.test(one))
  const charset = parameters.find((one) => /^CHARSET=/i.test(one))?.slice(8)
  const types = parameters.flatMap((one) => {
    if (/^TYPE=/i.test(one)) return [one.slice(5)]
    return NAMED.test(one) || ENCODINGS.test(one) ? [] : [one]
  })
  const text = isQuoted ? fromQuotedPrintable(value, charset) : value
  const typed = types.length > 0 ? `;TYPE=${types.join(',')}` : ''
  return `${name}${typed}:${escaped(text)}`
}

/** RFC 2045, section 6.7. Letters that the named character set does not have are left as they are. */
function fromQuotedPrintable(text: string, charset = 'utf-8'): string {
  const bytes: number[] = []
  const encoder = new TextEncoder()
  for (let i = 0; i < text.length; i++) {
    const code = /^=([0-9A-F]{2})/i.exec(text.slice(i, i + 3))?.[1]
    if (code) {
      bytes.push(Number.parseInt(code, 16))
      i += 2
    } else bytes.push(...encoder.encode(text[i] ?? ''))
  }
  const all = Uint8Array.from(bytes)
  try {
    return new TextDecoder(charset, { fatal: true }).decode(all)
  } catch {
    return new TextDecoder('windows-1252').decode(all)
  }
}

/** Version 2.1 escapes nothing but semicolons, and those only where they do not part values. */
const escaped = (text: string): string => text.replace(/(?<!\\),/g, '\\,').replace(/\r\n|\n|\r/g, '\\n')
