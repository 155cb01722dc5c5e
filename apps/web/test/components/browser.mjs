import { TestEnvironment } from 'jest-environment-jsdom'

/** What every browser has and jsdom leaves out. */
const LEFT_OUT = {
  TextEncoder,
  TextDecoder,
  ReadableStream,
  TransformStream,
  WritableStream,
  Blob,
  structuredClone,
  Uint8Array,
  Request,
  Response,
  Headers,
  AbortController,
  AbortSignal,
  matchMedia: () => ({ matches: false, addEventListener() {}, removeEventListener() {} }),
}

/** A page without a browser, in which a part of the client can be shown. */
export default class extends TestEnvironment {
  async setup() {
    await super.setup()
    Object.assign(this.global, LEFT_OUT)
  }
}
