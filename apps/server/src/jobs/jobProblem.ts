/** An expected end before the work is done; the code is shown to people. */
export class JobProblem extends Error {
  constructor(
    readonly code: string,
    options?: ErrorOptions,
  ) {
    super(code, options)
  }
}
