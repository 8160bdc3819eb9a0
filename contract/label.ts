/** What a label's code opens. */
export interface CodeAnswer {
  readonly things:
  readonly ({ readonly what: 'bag' | 'plan', readonly id: string, readonly name: string } | {
    readonly what: 'cast'
    readonly id: string
    readonly cast: string
    readonly name: string
  })[]
}
