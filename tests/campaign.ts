/**
 * How much of a large test is run: all of it with fresh seeds in a campaign (`npm run campaign`), a twentieth with a
 * seed of its own everywhere else, so that it is the same each time.
 */
export function campaign(whole: number): { readonly seed: number, readonly of: number } {
  const told = Number(process.env.CAMPAIGN_SEED)
  return told ? { seed: told, of: whole } : { seed: 20_261_129, of: Math.ceil(whole / 20) }
}
