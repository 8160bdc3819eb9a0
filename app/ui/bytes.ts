const GB = 1e9, MB = 1e6

/** A size as people say it. @example bytesWords(4.1e9) // '4.1 GB' */
export function bytesWords(bytes: number): string {
  if (bytes > 0 && bytes < MB) return 'less than 1 MB'
  return bytes >= GB ? `${Number((bytes / GB).toPrecision(2))} GB` : `${Number((bytes / MB).toPrecision(2))} MB`
}
