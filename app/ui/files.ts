/** Offers what was made here as a file. */
export function offerFile(name: string, contents: BlobPart, type: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([contents], { type }))
  link.download = name
  link.click()
  URL.revokeObjectURL(link.href)
}

/** A name of a thing as a name of a file. */
export function fileName(words: string, ending: string): string {
  return `${
    words.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase().match(/[a-z0-9]+/g)?.join('-').slice(0, 60)
    || 'nine-ripples'
  }.${ending}`
}

/** @throws with a sentence when the text is no JSON */
export function readJson(text: string): unknown {
  try {
    return JSON.parse(text)
  }
  catch {
    throw new Error('This file is not whole, or not JSON.')
  }
}
