import type { FormId } from './form-ids'

/**
 * What moulds are drawn as: the kinds that casters use, from above and cut through. Drawn by hand for this product, at
 * most forty points each. The cut is of the inside, face down as it is poured: x from -1 to 1 over the mouth, z down
 * from the lip in widths. Outlines lie in a square of 100, which is stretched to the mouth; a standing one is seen from
 * the side, as the cast stands.
 */
export interface Form {
  readonly turned: boolean
  readonly cut: readonly (readonly [x: number, z: number])[]
  /** The cast’s edge, and the lines on it, as paths. */
  readonly edge: string
  readonly lines: readonly string[]
  /** Seen from the side, since from above it would be rings. */
  readonly stands?: true
}

const SQUARE = 'M2 2H98V98H2Z', DISC = 'M50 2A48 48 0 1 1 50 98A48 48 0 1 1 50 2Z'
const round = (n: number) => Math.round(n * 10) / 10
const polar = (r: number, turn: number) => `${round(50 + r * Math.sin(turn))} ${round(50 - r * Math.cos(turn))}`

/** Eight lobes round a middle, each with its leaf. */
function rosette(): Pick<Form, 'edge' | 'lines'> {
  const lobes = Array.from({ length: 8 }, (_, k) => k * Math.PI / 4), half = Math.PI / 8
  const edge = lobes.map(a => `A20 20 0 0 1 ${polar(44, a + half)}`).join('')
  const leaf = (a: number) =>
    `M${polar(16, a)}Q${polar(28, a - 0.28)} ${polar(39, a)}Q${polar(28, a + 0.28)} ${polar(16, a)}Z`
  return { edge: `M${polar(44, -half)}${edge}Z`, lines: [`M50 39A11 11 0 1 1 50 61A11 11 0 1 1 50 39Z`, ...lobes.map(leaf)] }
}
/** A stem with leaves that shorten to its tip. */
function fern(): readonly string[] {
  const leaves = Array.from({ length: 9 }, (_, k) => {
    const x = 20 + 7 * k, y = 74 - 5.6 * k, reach = 24 - 2.1 * k
    return `M${round(x)} ${round(y)}q${round(reach * 0.1)} ${round(-reach * 0.7)} ${round(reach * 0.6)} ${round(-reach)}`
      + `M${round(x)} ${round(y)}q${round(reach * 0.8)} ${round(reach * 0.1)} ${round(reach)} ${round(reach * 0.55)}`
  })
  return ['M10 82Q50 56 90 20', ...leaves]
}
const star = (points: number, outer: number, inner: number) => `M${
  Array.from({ length: 2 * points }, (_, k) => polar(k % 2 ? inner : outer, k * Math.PI / points)).join('L')}Z`

export const FORMS: Readonly<Record<FormId, Form>> = {
  tile: {
    turned: false,
    cut: [[-1, 0], [-0.94, 0.1], [-0.82, 0.1], [-0.8, 0.08], [-0.5, 0.08], [-0.12, 0.05], [0, 0.04], [0.12, 0.05],
      [0.5, 0.08], [0.8, 0.08], [0.82, 0.1], [0.94, 0.1], [1, 0]],
    edge: SQUARE,
    lines: ['M10 10H90V90H10Z', star(4, 34, 12)],
  },
  box: {
    turned: false,
    cut: [[-1, 0], [-0.96, 0.5], [0.96, 0.5], [1, 0]],
    edge: SQUARE,
    lines: ['M2 2L16 16H84L98 2M16 16V84L2 98M84 16V84L98 98M16 84H84'],
  },
  tub: {
    turned: true,
    cut: [[-1, 0], [-0.94, 0.36], [-0.88, 0.4], [0.88, 0.4], [0.94, 0.36], [1, 0]],
    edge: DISC,
    lines: ['M50 10A40 40 0 1 1 50 90A40 40 0 1 1 50 10Z'],
  },
  cup: {
    turned: true,
    cut: [[-1, 0], [-0.72, 1], [0.72, 1], [1, 0]],
    edge: 'M16 96L2 4H98L84 96Z',
    lines: ['M3.5 14H96.5'],
    stands: true,
  },
  bowl: {
    turned: true,
    cut: [[-1, 0], [-0.95, 0.12], [-0.82, 0.26], [-0.6, 0.37], [-0.3, 0.43], [0, 0.45], [0.3, 0.43], [0.6, 0.37],
      [0.82, 0.26], [0.95, 0.12], [1, 0]],
    edge: 'M2 98C2 40 22 4 50 4S98 40 98 98Z',
    lines: ['M20 86C22 48 32 24 46 16'],
    stands: true,
  },
  bat: {
    turned: false,
    cut: [[-1, 0], [-0.98, 0.09], [-0.96, 0.1], [0.96, 0.1], [0.98, 0.09], [1, 0]],
    edge: 'M8 2H92A6 6 0 0 1 98 8V92A6 6 0 0 1 92 98H8A6 6 0 0 1 2 92V8A6 6 0 0 1 8 2Z',
    lines: ['M12 8H88A4 4 0 0 1 92 12V88A4 4 0 0 1 88 92H12A4 4 0 0 1 8 88V12A4 4 0 0 1 12 8Z'],
  },
  heart: {
    turned: false,
    cut: [[-1, 0], [-0.92, 0.16], [-0.66, 0.28], [-0.4, 0.32], [-0.16, 0.24], [0, 0.17], [0.16, 0.24], [0.4, 0.32],
      [0.66, 0.28], [0.92, 0.16], [1, 0]],
    edge: 'M50 97C34 78 3 56 3 30C3 14 14 4 27 4C38 4 46 11 50 20C54 11 62 4 73 4C86 4 97 14 97 30C97 56 66 78 50 97Z',
    lines: ['M15 38C12 26 18 17 27 16'],
  },
  star: {
    turned: false,
    cut: [[-1, 0], [-0.8, 0.1], [-0.3, 0.16], [0, 0.24], [0.3, 0.16], [0.8, 0.1], [1, 0]],
    edge: star(5, 50, 22),
    lines: Array.from({ length: 5 }, (_, k) => `M50 50L${polar(50, k * 2 * Math.PI / 5)}`),
  },
  rosette: {
    turned: true,
    cut: [[-1, 0], [-0.93, 0.05], [-0.8, 0.085], [-0.62, 0.07], [-0.46, 0.05], [-0.34, 0.055], [-0.26, 0.12],
      [-0.14, 0.14], [0.14, 0.14], [0.26, 0.12], [0.34, 0.055], [0.46, 0.05], [0.62, 0.07], [0.8, 0.085], [0.93, 0.05],
      [1, 0]],
    ...rosette(),
  },
  relief: {
    turned: false,
    cut: [[-1, 0], [-0.96, 0.08], [-0.8, 0.08], [-0.7, 0.11], [-0.58, 0.08], [-0.44, 0.13], [-0.3, 0.09], [-0.16, 0.14],
      [0, 0.1], [0.16, 0.14], [0.3, 0.09], [0.44, 0.12], [0.58, 0.08], [0.7, 0.1], [0.8, 0.08], [0.96, 0.08], [1, 0]],
    edge: 'M6 2H94A4 4 0 0 1 98 6V94A4 4 0 0 1 94 98H6A4 4 0 0 1 2 94V6A4 4 0 0 1 6 2Z',
    lines: fern(),
  },
  face: {
    turned: false,
    cut: [[-1, 0], [-0.9, 0.14], [-0.66, 0.24], [-0.42, 0.26], [-0.24, 0.3], [0, 0.44], [0.2, 0.3], [0.34, 0.32],
      [0.5, 0.25], [0.72, 0.22], [0.92, 0.12], [1, 0]],
    edge: 'M50 2C78 2 96 20 95 46C94 72 76 98 50 98S6 72 5 46C4 20 22 2 50 2Z',
    lines: ['M18 38Q29 30 40 37M60 37Q71 30 82 38', 'M20 45Q29 39 38 45Q29 50 20 45ZM62 45Q71 39 80 45Q71 50 62 45Z',
      'M46 44L42 66Q50 71 58 66', 'M34 80Q42 75 50 78Q58 75 66 80Q50 88 34 80Z'],
  },
  hand: {
    turned: false,
    cut: [[-1, 0], [-0.96, 0.9], [-0.9, 1.2], [-0.72, 1.24], [-0.62, 1.04], [-0.5, 1.46], [-0.34, 1.48], [-0.22, 1.08],
      [-0.08, 1.56], [0.1, 1.56], [0.2, 1.08], [0.34, 1.44], [0.5, 1.42], [0.58, 0.9], [0.76, 0.98], [0.96, 0.76],
      [0.8, 0.5], [1, 0]],
    edge: 'M26 97L24 60L14 40Q13 34 18 33L28 46L27 16Q28 9 33 10L38 40L42 6Q46 1 50 6L51 39L57 9Q62 5 65 11L62 42'
      + 'L70 22Q76 19 77 26L72 54Q88 44 93 50Q90 58 76 72L73 97Z',
    lines: ['M32 60Q44 54 58 58M36 72Q44 64 50 70'],
    stands: true,
  },
  print: {
    turned: false,
    cut: [[-1, 0], [-0.94, 0.1], [-0.86, 0.18], [-0.8, 0.14], [-0.74, 0.19], [-0.68, 0.15], [-0.6, 0.2], [-0.4, 0.16],
      [-0.1, 0.11], [0.2, 0.12], [0.34, 0.18], [0.42, 0.14], [0.5, 0.2], [0.58, 0.15], [0.68, 0.2], [0.78, 0.15],
      [0.9, 0.14], [1, 0]],
    edge: 'M4 50C4 26 18 16 36 22C48 26 54 28 66 20C84 12 97 26 97 48C97 70 84 86 66 78C54 72 48 74 36 78C18 84 4 74 4 50Z',
    lines: ['M14 32V68M23 27V73M32 26V74', 'M62 26V76M70 22V80M78 22V80M87 28V70'],
  },
  stepped: {
    turned: true,
    cut: [[-1, 0], [-0.97, 0.22], [-0.88, 0.24], [-0.86, 0.48], [-0.76, 0.5], [-0.72, 0.78], [-0.48, 0.78],
      [-0.42, 0.68], [0.42, 0.68], [0.48, 0.78], [0.72, 0.78], [0.76, 0.5], [0.86, 0.48], [0.88, 0.24],
      [0.97, 0.22], [1, 0]],
    edge: 'M2 97V75L8 72V43L16 40L18 6H32L37 17H63L68 6H82L84 40L92 43V72L98 75V97Z',
    lines: ['M4 74H96', 'M11 42H89'],
    stands: true,
  },
  baluster: {
    turned: true,
    cut: [[-1, 0], [-0.8, 0.1], [-0.52, 0.3], [-0.7, 0.5], [-0.98, 0.72], [-0.9, 0.98], [-0.56, 1.12], [-0.62, 1.3],
      [-0.6, 1.5], [-0.3, 1.62], [0.3, 1.62], [0.6, 1.5], [0.62, 1.3], [0.56, 1.12], [0.9, 0.98],
      [0.98, 0.72], [0.7, 0.5], [0.52, 0.3], [0.8, 0.1], [1, 0]],
    edge: 'M16 98L30 80L14 62L4 48L12 34L28 28L24 18L28 8L42 2H58L72 8L76 18L72 28L88 34L96 48L86 62L70 80L84 98Z',
    lines: ['M28 28H72', 'M4 48H96'],
    stands: true,
  },
  sleeve: {
    turned: true,
    cut: [[-1, 0], [-0.98, 1.5], [-0.8, 1.66], [0.8, 1.66], [0.98, 1.5], [1, 0]],
    edge: 'M4 97V14Q6 2 24 2H76Q94 2 96 14V97Z',
    lines: ['M4 84H96'],
    stands: true,
  },
}
