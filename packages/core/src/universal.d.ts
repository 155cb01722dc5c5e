// Part of every JavaScript host (WHATWG Encoding), but of no ECMAScript library that TypeScript ships.
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean; ignoreBOM?: boolean })
  decode(input?: Uint8Array, options?: { stream?: boolean }): string
}
declare class TextEncoder {
  encode(input?: string): Uint8Array
}
/** Base64 to a string of bytes (WHATWG HTML). */
declare function atob(text: string): string
