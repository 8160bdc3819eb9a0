import type { ArchiveList } from '~contract/archive'
import { MOST_PARTS, PART_BYTES } from '~contract/mesh'
import { PHOTO_BYTES } from '~contract/photo'

/**
 * How much each file of an archive may hold, unpacked: it is read from the list of files, before anything is unpacked.
 * Far above what a workshop of decades holds (bench/README.md: 20 000 pours are 0.6 GB of lines).
 */

/** Only these names can be in one: whatever else is in a file, it is not a workshop's. */
const FILES: readonly (readonly [RegExp, number])[] = [
  [/^workshop\.json$/, 64_000],
  [/^logbook\.csv$/, 5e9],
  [/^people\.jsonl$/, 20e6],
  [/^library\.jsonl$/, 200e6],
  [/^plans\.jsonl$/, 500e6],
  [/^pours\.jsonl$/, 20e9],
  [/^views\.jsonl$/, 20e6],
  [/^photos\.jsonl$/, 60e6],
  [/^meshes\.jsonl$/, 60e6],
  [/^photos\/[0-9a-f-]{36}\.jpg$/, PHOTO_BYTES],
  [/^meshes\/[0-9a-f-]{36}\.stl\.gz$/, MOST_PARTS * PART_BYTES],
]
export const MANIFEST = 'nine-ripples.json'
export const MOST_FILES = 100_000
/** Of each file the manifest has a name of at most 50 letters and a hash of 64, with what stands between; bytes. */
const MANIFEST_HEAD = 1000, MANIFEST_EACH = 140

/** All together, unpacked; and how often a large file may be smaller packed: more is no text, but a trap. */
export const MOST_BYTES = 30e9, LARGE = 50e6, MOST_SQUEEZED = 400

/** @param files in the archive @returns bytes; undefined for a name that no archive has */
export function mostBytesOf(name: string, files: number): number | undefined {
  if (name === MANIFEST) return MANIFEST_HEAD + files * MANIFEST_EACH
  return FILES.find(([names]) => names.test(name))?.[1]
}

/** Of a line, bytes: a pour has all its entries in one. */
export const MOST_LINE: Readonly<Record<ArchiveList, number>> = {
  'people.jsonl': 2000,
  'library.jsonl': 2e6,
  'plans.jsonl': 2e6,
  'pours.jsonl': 64e6,
  'views.jsonl': 100_000,
  'photos.jsonl': 4000,
  'meshes.jsonl': 20_000,
}

/** What anything here nests is a handful deep. */
const MOST_DEPTH = 40

/**
 * Whether a line of JSON nests deeper than any can: looked at as bytes, before it is read.
 * @param line UTF-8
 */
export function isTooDeep(line: Uint8Array): boolean {
  let depth = 0, quoted = false
  for (let i = 0; i < line.length; i++) {
    const byte = line[i]
    if (quoted) {
      if (byte === 0x5C) i++
      else if (byte === 0x22) quoted = false
    }
    else if (byte === 0x22) quoted = true
    else if (byte === 0x7B || byte === 0x5B) {
      if (++depth > MOST_DEPTH) return true
    }
    else if (byte === 0x7D || byte === 0x5D) depth--
  }
  return false
}
