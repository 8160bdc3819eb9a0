/** Who draws a little each frame, one after the other. */
const waiting: (() => boolean)[] = []
let isAsked = false

function draw(): void {
  isAsked = false
  const [step] = waiting
  if (step && !step()) leave(step)
  askForFrame()
}
function askForFrame(): void {
  if (isAsked || waiting.length === 0) return
  isAsked = true
  requestAnimationFrame(draw)
}
function leave(step: () => boolean): void {
  const at = waiting.indexOf(step)
  if (at >= 0) waiting.splice(at, 1)
}

/**
 * Work that a page does in pieces, one a frame: while a slow phone draws it, a finger is still heard. Those of one page
 * take turns, the first to ask first.
 * @param step does a piece, and says whether there is more
 * @returns stops it
 */
export function inTurn(step: () => boolean): () => void {
  waiting.push(step)
  askForFrame()
  return () => leave(step)
}
