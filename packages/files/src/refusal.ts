import type { FileProblem } from '@upper-field/core/table'

/** Thrown where a file cannot be read at all; the code has a sentence for people. */
export class FileRefusal extends Error {
  constructor(readonly problem: FileProblem) {
    super(problem)
  }
}
