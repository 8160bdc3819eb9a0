/** Kinds of mould that are drawn; how each looks: forms.ts. */
export const FORM_IDS = [
  'tile', 'box', 'tub', 'cup', 'bowl', 'bat', 'heart', 'star', 'rosette', 'relief', 'face', 'hand', 'print', 'stepped',
  'baluster', 'sleeve',
] as const
export type FormId = typeof FORM_IDS[number]
