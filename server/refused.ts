import { ANSWERS } from './words'

/** What the server will not do. The code decides; its HTTP status and sentence stand in words.ts. */
type RefusalCode = keyof typeof ANSWERS

/**
 * A refusal of the product's own, wherever it is found: route.ts answers with its status, its sentence and the field it
 * belongs to. Thrown inside a transaction, nothing of it is written.
 * @example throw new Refused('stale-plan')
 */
export class Refused extends Error {
  readonly status: number
  /**
   * @param code what is refused
   * @param field where in the request it belongs
   * @param sentence said instead of the code's own, where it names what cannot be known beforehand
   */
  constructor(readonly code: RefusalCode, readonly field?: string, sentence?: string) {
    super(sentence ?? ANSWERS[code].sentence)
    this.status = ANSWERS[code].status
  }
}
