import { lookOf, profileOf, type Drawable } from './profile'

/** A place in a picture: where it begins, and how large it is, in the picture's own units. */
export interface Placed { readonly x: number, readonly y: number, readonly w: number, readonly h: number }

/**
 * Where a mould's outline lies in a picture: as wide against its height as its mouth, or as the cast stands; in the
 * middle, on the lower edge. @param edge kept free on every side
 */
export function placeOutline(mould: Drawable, width: number, height: number, edge: number): Placed {
  const { mouth } = mould, stands = lookOf(mould).stands
  const wide = mouth.width, across = mouth.shape === 'round' ? mouth.width : mouth.length
  const tall = stands ? profileOf(mould).depth : across
  const scale = Math.min((width - 2 * edge) / wide, (height - 2 * edge) / tall), w = wide * scale, h = tall * scale
  return { x: (width - w) / 2, y: height - edge - h, w, h }
}

/** The mark, in a square of 128: a bowl with its rings, each inside the one before, and the stream that falls in. */
export const MARK = {
  rings: [
    'M6 66A58 37.4 0 0 1 122 66C122 101.64 96 120 86 120H42C32 120 6 101.64 6 66Z',
    'M14 66A50 31 0 1 1 114 66A50 31 0 1 1 14 66Z',
    'M17.38 65.22A43.75 27.13 0 1 1 104.88 65.22A43.75 27.13 0 1 1 17.38 65.22Z',
    'M20.75 64.45A37.5 23.25 0 1 1 95.75 64.45A37.5 23.25 0 1 1 20.75 64.45Z',
    'M24.13 63.67A31.25 19.38 0 1 1 86.63 63.67A31.25 19.38 0 1 1 24.13 63.67Z',
    'M27.5 62.9A25 15.5 0 1 1 77.5 62.9A25 15.5 0 1 1 27.5 62.9Z',
    'M30.88 62.13A18.75 11.63 0 1 1 68.38 62.13A18.75 11.63 0 1 1 30.88 62.13Z',
    'M34.25 61.35A12.5 7.75 0 1 1 59.25 61.35A12.5 7.75 0 1 1 34.25 61.35Z',
    'M37.63 60.57A6.25 3.88 0 1 1 50.13 60.57A6.25 3.88 0 1 1 37.63 60.57Z',
  ],
  /** Kept free round the stream. */
  gap: 'M28.5 0H53.5V59.8H28.5Z',
  stream: 'M34.5 4H47.5L45.68 59.8H36.32Z',
} as const
