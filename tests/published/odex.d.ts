/** What is used of the general-purpose integrator; its own sources do not pass a strict check. */
export class Solver {
  constructor(dimension: number)
  absoluteTolerance: number
  relativeTolerance: number
  maxSteps: number
  maxStepSize: number
  solve(rates: (t: number, y: number[]) => number[], from: number, start: number[], to: number, seen: (step: number, before: number, t: number, y: number[]) => boolean): unknown
}
