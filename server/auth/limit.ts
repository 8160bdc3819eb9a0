import { RateLimiterPostgres } from 'rate-limiter-flexible'
import type pg from 'pg'
import { refuse } from '../route'

/** Wrong passwords allowed for one address, and from one place, in a quarter of an hour. */
const WINDOW_S = 900
let limiters: { email: RateLimiterPostgres, place: RateLimiterPostgres } | undefined

function limitersOf(pool: pg.Pool) {
  const common = {
    storeClient: pool,
    storeType: 'pool',
    tableName: 'sign_in_limit',
    tableCreated: true,
    duration: WINDOW_S,
  }
  limiters ??= {
    email: new RateLimiterPostgres({ ...common, keyPrefix: 'email', points: 8 }),
    place: new RateLimiterPostgres({ ...common, keyPrefix: 'place', points: 40 }),
  }
  return limiters
}

/**
 * Takes one try before the password is looked at, so that many tries at once cannot slip by. @throws a 429 that says
 * when to try again.
 */
export async function takeTry(pool: pg.Pool, email: string, place: string): Promise<void> {
  const { email: byEmail, place: byPlace } = limitersOf(pool)
  try {
    await byPlace.consume(place)
    await byEmail.consume(email)
  }
  catch (limit) {
    if (limit instanceof Error) throw limit
    const minutes = Math.max(1, Math.ceil((limit as { msBeforeNext: number }).msBeforeNext / 60_000))
    throw refuse(429, `Too many tries. Wait ${minutes} min and try again.`)
  }
}

export async function forgiveTries(pool: pg.Pool, email: string): Promise<void> {
  await limitersOf(pool).email.delete(email)
}
