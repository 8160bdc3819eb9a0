import { sql } from 'kysely'
import type { Db } from '../store/open'
import { hashOf } from '../store/sessions'
import { Refused } from '../refused'
import { waitWords } from '../words'

/**
 * Guessing is made slow, for whoever guesses. A place that guesses waits, longer each time; so does a browser that
 * knows an account and still guesses. Nobody can make somebody else wait: tries at an account from elsewhere do not
 * count against its person's own place, and not at all against a browser they signed in from before. Right tries do
 * not count.
 */
const LONGEST_S = 900
/** After this long without a try all is forgotten, hours. */
const REMEMBERED_H = 24

/** Wrong tries before there is a wait; then two seconds, four, eight, … */
export const FREE = {
  /** Of one place, at whatever it tries: a class behind one address mistypes too. */
  place: 20,
  /** Of one place at one account. */
  account: 5,
  /** Of a browser that knows the account. */
  device: 10,
  /** Of one place at links, invitations and codes. */
  link: 20,
  /** Of one browser at the codes of classes; of all at one place that were never there before: a class types there. */
  seatDevice: 10,
  seatPlace: 300,
  /** Of one place at the first owner's door. */
  owner: 10,
} as const

export interface Guess { readonly kind: keyof typeof FREE, readonly about: string }

const keyOf = ({ kind, about }: Guess) => `${kind}:${hashOf(about)}`
/** Counts a try unless it has to wait. @returns for how long, seconds, 0 when it may go on; and which try it is */
async function tryOnce(db: Db, guess: Guess): Promise<{ readonly wait: number, readonly tries: number }> {
  const key = keyOf(guess), free = FREE[guess.kind]
  const tries = sql`case when guess.tried_at < clock_timestamp() - make_interval(hours => ${REMEMBERED_H}::int) then 1
    else guess.tries + 1 end`
  const wait = sql`case when ${tries} <= ${free}::int then 0
    else least(${LONGEST_S}::float, power(2, least(${tries} - ${free}::int, 20))) end`
  const { rows } = await sql<{ wait: number | null, tries: number | null }>`
    with taken as (
      insert into guess (key, tries, free_at, tried_at) values (${key}, 1, clock_timestamp(), clock_timestamp())
      on conflict (key) do update
        set tries = ${tries}, free_at = clock_timestamp() + make_interval(secs => ${wait}), tried_at = clock_timestamp()
        where guess.free_at <= clock_timestamp() returning tries
    )
    select case when exists (select from taken) then 0
      else extract(epoch from (select free_at from guess where key = ${key}) - clock_timestamp())::float end as wait,
      (select tries from taken) as tries
  `.execute(db)
  return { wait: Math.max(0, rows[0]?.wait ?? 0), tries: rows[0]?.tries ?? 0 }
}

/**
 * Takes a try at each before anything is looked at, so that many at once cannot slip by.
 * @returns whether this is the first after which there is a wait
 * @throws Refused, a 429 that says when to try again
 */
export async function takeGuesses(db: Db, guesses: readonly Guess[]): Promise<boolean> {
  let first = false
  for (const guess of guesses) {
    const { wait, tries } = await tryOnce(db, guess)
    if (wait > 0) throw new Refused('too-many-tries', undefined, waitWords(wait))
    first ||= tries === FREE[guess.kind] + 1
  }
  return first
}

/** It was right: those tries do not count. */
export async function giveBack(db: Db, guesses: readonly Guess[]): Promise<void> {
  if (guesses.length === 0) return
  await db.updateTable('guess').set(eb => ({ tries: eb('tries', '-', 1), free_at: sql`clock_timestamp()` }))
    .where('key', 'in', guesses.map(keyOf)).where('tries', '>', 0).execute()
}
