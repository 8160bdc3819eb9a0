/** Entries that one pour holds: a busy day's is a few hundred, a thermometer left on for a day some thousands. */
export const MOST_ENTRIES = 10_000

/** The largest number of the database's ordinary kind. */
export const MOST_INT = 2_147_483_647

/** What a workshop keeps at most of photos and of models, bytes: so that one of many does not fill the disk of all. */
export const MOST_KEPT = { photos: 4e9, models: 10e9 } as const
/** How much of it there is. */
export type RoomFacts = Readonly<Record<keyof typeof MOST_KEPT, { readonly bytes: number, readonly most: number }>>
