const MODULUS = 2_147_483_647

/**
 * Numbers between 0 and 1 that look drawn and are the same each time: the multiplicative congruential generator of
 * Park,
 * Miller and Stockmeyer 1993, Commun. ACM 36(7):108. Good enough to shuffle and to try things out, never for secrets.
 * @param seed a whole number from 1 to 2^31 - 2
 */
export function generator(seed: number): () => number {
  let state = seed
  return () => (state = state * 48_271 % MODULUS) / MODULUS
}
