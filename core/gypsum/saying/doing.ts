/** Sayings about how to do it, and not how much of what. */

export const DOINGS = [
  'starts-when-stirred', 'over-mixed', 'tap-while-sifting', 'never-dump', 'hot-water', 'machine', 'warm-is-done',
] as const
export type DoingId = typeof DOINGS[number]

/** What tells each of them from the others, in a plain saying. The first that fits is meant. */
const SAID: readonly (readonly [DoingId, RegExp])[] = [
  ['starts-when-stirred', /\b(starts?|begins?|clock|goes off)\b.*\b(stir|mix)|\b(not|nothing|never) (?:sets?|starts?|happens?) (?:until|till|before) .*\b(stir|mix)/],
  ['over-mixed', /\bover-? ?(mix|stir)|\b(stir|mix)(red|ed)?\b.*\btoo (long|much)\b|\bnever sets?\b/],
  ['tap-while-sifting', /\b(tap|knock|bang|shak)\w*\b.*\b(sift|sprinkl|powder goes)|\b(sift|sprinkl)\w*\b.*\b(tap|knock|bang|shak)/],
  ['never-dump', /\bdump|\ball at once\b|\bsift\b.*\bslow|\bslow\w*\b.*\bsift/],
  ['hot-water', /\b(hot|hotter|warm|warmer|boiling) water\b|\bwater\b.*\b(hot|warm)\b/],
  ['warm-is-done', /\bwarm\b.*\b(done|set|ready|open|demould|hard)|\b(done|set|ready|open|demould)\b.*\bwarm\b/],
  ['machine', /\b(machine|drill|mixer|blender|whisk|by hand|paddle)\b/],
]

/** Which of them some text says; none where it is another. @param said as `plainSaying` gives it */
export function doingSaid(said: string): DoingId | undefined {
  return SAID.find(([, form]) => form.test(said))?.[0]
}
