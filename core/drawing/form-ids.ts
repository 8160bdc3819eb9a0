/** Kinds of mould that are drawn; how each looks: forms.ts. */
export const FORM_IDS = [
  'tile', 'box', 'tub', 'cup', 'bowl', 'bat', 'heart', 'star', 'rosette', 'relief', 'face', 'hand', 'print', 'stepped',
  'baluster', 'sleeve',
] as const
export type FormId = typeof FORM_IDS[number]

/**
 * What a mould's own piece looks like, from its model or from what was traced in its photo. Outlines lie in a square
 * of 100, as those of the forms do; the cut is of the inside: x from −1 to 1 over the mouth, z down from the lip in
 * widths.
 */
export interface Likeness {
  readonly turned: boolean
  readonly stands: boolean
  readonly edge: readonly Line[]
  readonly lines: readonly Line[]
  /** None where only its outline is known. */
  readonly cut?: Line
}
export type Place = readonly [x: number, y: number]
export type Line = readonly Place[]
/** Most points of all edges, of all lines, and of the cut. */
export const MOST_POINTS = { edge: 120, lines: 200, cut: 40 } as const
