/**
 * Signs of the house, drawn for it: a line for a vessel or a tool, solid for plaster or powder. On a grid of 24; they
 * differ at 20 px. None stands without its word but in lists whose rows name it.
 */
interface GlyphPath { readonly d: string, readonly solid?: true, readonly width?: number }
export const GLYPHS = {
  today: [
    { d: 'M2 17h20M5 17v5M19 17v5' },
    { d: 'M7 9h10l1.5 6h-13z', solid: true },
    { d: 'M9 5.5c-1-1.5 1-2.5 0-4M14 5.5c-1-1.5 1-2.5 0-4' },
  ],
  plan: [
    { d: 'M5 2h14v20H5z' },
    { d: 'M8 13h8v6H8z', solid: true },
    { d: 'M8 6h3M8 9.5h5' },
  ],
  bench: [
    { d: 'M4 9l2 13h12l2-13' },
    { d: 'M5.6 14h12.8l-1 7H6.6z', solid: true },
    { d: 'M16 2l-3 9' },
  ],
  shelf: [
    { d: 'M2 11h20M2 21h20' },
    { d: 'M4 3h6v6H4zM13 14h7v5h-7z', solid: true },
    { d: 'M13 9l3-6 3 6z', solid: true },
    { d: 'M5 15v4' },
  ],
  help: [
    { d: 'M3 20V4h18v12H9z' },
    { d: 'M9.5 8.5c0-3 5-3 5 0 0 2-2.5 2-2.5 4' },
    { d: 'M12 14.2v.6', width: 2.6 },
  ],
  logbook: [
    { d: 'M4 3h13a2 2 0 0 1 2 2v16H6a2 2 0 0 1-2-2z' },
    { d: 'M8 7h7v4H8z', solid: true },
    { d: 'M4 18.5h15' },
  ],
  moulds: [
    { d: 'M2 7h4c.5 7 2.5 9 6 9s5.5-2 6-9h4v14H2z' },
    { d: 'M8.5 7h7c-.3 4-1.5 6-3.5 6s-3.2-2-3.5-6z', solid: true },
  ],
  powders: [
    { d: 'M8 7C4 11 3 14 3 17c0 3 2 5 5 5h8c3 0 5-2 5-5 0-3-1-6-5-10z' },
    { d: 'M8 7h8l2-4H6z' },
    { d: 'M5 16h14c.5 3-.5 4.5-3 4.5H8c-2.5 0-3.5-1.5-3-4.5z', solid: true },
  ],
  lab: [
    { d: 'M3 21V3' },
    { d: 'M3 21h18' },
    { d: 'M6 18c4 0 4-12 8-12s3 6 7 7' },
    { d: 'M14 3a2.5 2.5 0 1 0 .01 0z', solid: true },
  ],
  workshop: [
    { d: 'M3 22V10l9-7 9 7v12z' },
    { d: 'M8 14h8v8H8z', solid: true },
  ],
  more: [
    { d: 'M4 6h16M4 12h16M4 18h16' },
  ],
  weigh: [
    { d: 'M2.5 3h19l-3 6h-13z' },
    { d: 'M8 11h8l4 11H4zM12 13.5a3 3 0 1 0 .01 0z', solid: true },
  ],
  sift: [
    { d: 'M2 6h20' },
    { d: 'M4 7.5h16c0 4 -4 5.5 -8 5.5s-8 -1.5 -8 -5.5z', solid: true },
    { d: 'M7 15.7a1.3 1.3 0 1 0 .01 0z', solid: true },
    { d: 'M12 15.2a1.3 1.3 0 1 0 .01 0z', solid: true },
    { d: 'M17 15.7a1.3 1.3 0 1 0 .01 0z', solid: true },
    { d: 'M9.5 19.7a1.3 1.3 0 1 0 .01 0z', solid: true },
    { d: 'M14.5 19.7a1.3 1.3 0 1 0 .01 0z', solid: true },
  ],
  soak: [
    { d: 'M3 5l2.5 16h13L21 5' },
    { d: 'M4.6 14c2-2 3.5-2 5 0s3 2 5 0 3.5-2 4.8 0l-1 7h-13z', solid: true },
    { d: 'M7 9c1-3 5-3 6 0z', solid: true },
  ],
  stir: [
    { d: 'M4 10c0 8 4 11 8 11s8 -3 8 -11z' },
    { d: 'M21 2l-7 9' },
    { d: 'M8 15c2 2.5 6 2.5 8 0' },
  ],
  tap: [
    { d: 'M8 22V9h13v13z' },
    { d: 'M10 14h9v6h-9z', solid: true },
    { d: 'M2 13h3M2 18h3' },
    { d: 'M6 5L3 2M11 5V1M16 5l2 -3' },
  ],
  pour: [
    { d: 'M10 3l10 4l-4 9l-9 -3.5z' },
    { d: 'M6.5 12C4 12 3 14 3 21h4c0 -5 0 -6 2 -7z', solid: true },
    { d: 'M2 22h9' },
  ],
  strike: [
    { d: 'M2 14v8h20v-8' },
    { d: 'M4 15h16v5H4z', solid: true },
    { d: 'M4 10h16', width: 3.2 },
    { d: 'M12 8V3M9 3h6' },
  ],
  hand: [{ d: 'M7 12.5V6.5a1.5 1.5 0 0 1 3 0V11M10 10.5V4.5a1.5 1.5 0 0 1 3 0V11M13 11V5.5a1.5 1.5 0 0 1 3 0V13.5l1.4-2.2a1.4 1.4 0 0 1 2.5 1.2L17.2 18.2a5 5 0 0 1-4.5 2.8H11.4a5 5 0 0 1-4.6-3L4.4 13.6a1.4 1.4 0 0 1 2.4-1.4' }],
  wait: [
    { d: 'M12 2a10 10 0 1 0 .01 0z' },
    { d: 'M12 5.5v6.5h6.5a6.5 6.5 0 0 0 -6.5 -6.5z', solid: true },
  ],
  open: [
    { d: 'M7.5 11L9 2h6l1.5 9z', solid: true },
    { d: 'M2 13v9h20v-9h-4.5l-1.5 6h-8l-1.5 -6z' },
  ],
  dry: [
    { d: 'M2 20h20M5 20v2.5M19 20v2.5' },
    { d: 'M11 4h8v14h-8z', solid: true },
    { d: 'M2 7c2 -1.5 3.5 1.5 6 0M2 11.5c2 -1.5 3.5 1.5 6 0M2 16c2 -1.5 3.5 1.5 6 0', width: 1.9 },
  ],
  wash: [
    { d: 'M3 11h18l-2 10H5z' },
    { d: 'M7 5a2 2 0 1 0 .01 0z', solid: true },
    { d: 'M13 2.4a2.6 2.6 0 1 0 .01 0z', solid: true },
    { d: 'M18 6.7a1.3 1.3 0 1 0 .01 0z', solid: true },
    { d: 'M6.5 16c2 -1.5 3.5 -1.5 5.5 0s3.5 1.5 5.5 0', width: 1.8 },
  ],
  warm: [
    { d: 'M3 22v-7h18v7z', solid: true },
    { d: 'M7 12c-2 -3 2 -5 0 -9M12 12c-2 -3 2 -5 0 -9M17 12c-2 -3 2 -5 0 -9' },
  ],
  cold: [
    { d: 'M3 22v-7h18v7z', solid: true },
    { d: 'M12 1v11M7.5 3.5l9 5.5M16.5 3.5l-9 5.5' },
  ],
  bubble: [
    { d: 'M3 3h18v18H3z' },
    { d: 'M9 5.8a3.2 3.2 0 1 0 .01 0z', solid: true },
    { d: 'M15.5 12.3a2.2 2.2 0 1 0 .01 0z', solid: true },
    { d: 'M8.5 15.1a1.4 1.4 0 1 0 .01 0z', solid: true },
  ],
  crack: [
    { d: 'M3 4h7.5l-2 5 4 4-3 7H3zM13 4h8v16h-8.5l3 -7.5 -4 -4z', solid: true },
  ],
  soft: [
    { d: 'M1.5 6h12c6.5 0 9 4 9 12.5h-5c0 -5 -1 -7 -4.5 -7h-11.5z', solid: true },
    { d: 'M2.5 14.5h8v7.5h-8z' },
  ],
  lift: [
    { d: 'M3 12l2 9.5h14l2 -9.5' },
    { d: 'M3.5 2.5h11c0 4 -2 6.5 -5.5 6.5s-5.5 -2.5 -5.5 -6.5z', solid: true },
    { d: 'M14 3.5l8 -2' },
    { d: 'M6 16.5h12l-.7 3.5H6.7z', solid: true },
  ],
  wrong: [
    { d: 'M9 2L4 11l6 1.5L6 22' },
    { d: 'M17 3v11', width: 3 },
    { d: 'M17 18.1a1.9 1.9 0 1 0 .01 0z', solid: true },
  ],
  mask: [
    { d: 'M3 8c5 0 6 -3 9 -3s4 3 9 3c0 8 -4 12 -9 12S3 16 3 8z', solid: true },
    { d: 'M3.5 10H1M20.5 10H23M4.5 14.5H2M19.5 14.5H22', width: 1.6 },
  ],
} as const satisfies Record<string, readonly GlyphPath[]>
export type GlyphId = keyof typeof GLYPHS
