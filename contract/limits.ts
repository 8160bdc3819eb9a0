/** The largest number of the database's ordinary kind. */
export const MOST_INT = 2_147_483_647
