import type { DefectId } from '~core/pour/defects'

/** A simple mark for each defect, drawn for a square of 24 with its middle at 12, 12. */
export const DEFECT_MARKS: Readonly<Record<DefectId, string>> = {
  'surface-bubbles':
    'M7 9a2 2 0 1 0 .01 0zM15 7a2.5 2.5 0 1 0 .01 0zM12 15a1.7 1.7 0 1 0 .01 0zM18 15a1.4 1.4 0 1 0 .01 0z',
  'void': 'M5 19V9a7 7 0 0 1 14 0M5 19h4M19 9v4',
  'soft': 'M4 16c3-4 5 4 8 0s5 4 8 0M4 10c3-4 5 4 8 0s5 4 8 0',
  'crack': 'M12 2l-3 6 5 4-4 5 3 5',
  'broken-edge': 'M3 12h6l2-4 3 8 2-4h5',
  'torn': 'M4 6h16M6 6c0 5 3 3 3 8M12 6c0 7 2 4 2 10M18 6c0 4-2 3-1 7',
  'stuck': 'M4 18h16M7 18v-6M12 18V8M17 18v-6M12 4v0',
  'short': 'M4 4v16h16V4M4 12c4-2 6 2 8 0s5-1 8 0',
  'lumps': 'M5 13l3-4 4 1 1 4-4 3zM14 7l4-1 2 3-2 3-4-1z',
  'layer-line': 'M3 9h18M3 12h18M3 15h4M10 15h4M17 15h4',
  'streaks': 'M5 20L11 4M11 20L17 4M17 20l3-8',
  'flash': 'M12 3v18M12 12h7l2-2M12 12H5l-2 2',
  'warped': 'M3 16q9-12 18 0M3 19h18',
  'efflorescence': 'M12 4v16M5 8l14 8M5 16l14-8',
  'stain': 'M12 3c5 7 6 9 6 11a6 6 0 0 1-12 0c0-2 1-4 6-11z',
}
