/** The code of a class, apart from what reads requests: a phone needs no more of it. */

/** Signs of a code: none that is read as another (no 0 O, 1 I L, 5 S, 8 B, 2 Z, U V). */
export const CODE_SIGNS = '34679ACDEFGHJKMNPQRTWXY'
export const CODE_LENGTH = 8

/** As it is typed: in any case, with gaps. @returns undefined when it can be no code */
export function readClassCode(typed: string): string | undefined {
  const code = typed.toUpperCase().replace(/[\s-]/g, '')
  return code.length === CODE_LENGTH && [...code].every(sign => CODE_SIGNS.includes(sign)) ? code : undefined
}
/** As it is read out: two fours. */
export const spellCode = (code: string): string => `${code.slice(0, 4)} ${code.slice(4)}`
