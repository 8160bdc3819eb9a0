import type { FormId } from './form-ids'

/** What a form is called where somebody chooses it. */
export const FORM_WORDS: Readonly<Record<FormId, string>> = {
  tile: 'Tile with a raised middle',
  box: 'Box or block',
  tub: 'Tub or disc',
  cup: 'Cup or beaker',
  bowl: 'Bowl or dome',
  bat: 'Flat bat or slab',
  heart: 'Heart',
  star: 'Star',
  rosette: 'Rosette',
  relief: 'Relief',
  face: 'Face or mask',
  hand: 'Hand',
  print: 'Print in the ground',
  stepped: 'Stepped base',
  baluster: 'Turned piece, such as a knob or chess piece',
  sleeve: 'Sleeve or tall skin',
}
