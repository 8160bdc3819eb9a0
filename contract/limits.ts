/** Entries that one pour holds: a busy day's is a few hundred, a thermometer left on for a day some thousands. */
export const MOST_ENTRIES = 10_000

/** The largest number of the database's ordinary kind. */
export const MOST_INT = 2_147_483_647
