// @ts-check
import { chromium } from '@playwright/test'
import { writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

/**
 * Draws the sample photo of a boot print beside a ruler and a card, as a pinhole camera that leans would see it: `node
 * demo/print-photo.mjs`.
 * True sizes, metres: the print is 0.284 long and 0.104 across the sole; the card 0.148 by 0.105; the ruler 0.200
 * between its end marks.
 */
const W = 1600, H = 1200
const FOCAL = 2200, HEIGHT = 0.72, LEAN = 0.30, ROLL = 0.12
/** @param {number} x @param {number} y */
const at = (x, y) => {
  const [c, s] = [Math.cos(LEAN), Math.sin(LEAN)]
  const [y1, z1] = [y * c, y * s], [cr, sr] = [Math.cos(ROLL), Math.sin(ROLL)]
  const [x2, z2] = [x * cr + z1 * sr, -x * sr + z1 * cr]
  return `${(W / 2 + FOCAL * x2 / (HEIGHT - z2)).toFixed(1)},${(H / 2 + FOCAL * y1 / (HEIGHT - z2)).toFixed(1)}`
}
/** @param {(readonly [number, number])[]} points */
const area = points => points.map(([x, y]) => at(x, y)).join(' ')
/** Half of the sole's outline: along, and across from its middle line. */
const SOLE = [
  [-0.142, 0.012],
  [-0.136, 0.028],
  [-0.118, 0.036],
  [-0.085, 0.037],
  [-0.055, 0.033],
  [-0.02, 0.033],
  [0.02, 0.042],
  [0.055, 0.052],
  [0.09, 0.05],
  [0.115, 0.04],
  [0.133, 0.024],
  [0.142, 0.008],
]
/**
 * Turned a little, as it was trodden. @param {number} along @param {number} across @returns {readonly [number, number]}
 */
const trodden = (along, across) => [along * 0.966 - across * 0.259 - 0.04, along * 0.259 + across * 0.966 - 0.02]
const outline = [
  ...SOLE.map(([a, w]) => trodden(a ?? 0, w ?? 0)),
  ...[...SOLE].reverse().map(([a, w]) => trodden(a ?? 0, -(w ?? 0))),
]
const cleats = []
for (let k = 0; k < 9; k++) {
  const a = -0.125 + 0.0295 * k, w = a < -0.06 ? 0.029 : a < 0.01 ? 0.026 : 0.042
  if (k === 3) continue
  cleats.push([trodden(a, -w), trodden(a + 0.015, -w + 0.006), trodden(a + 0.015, w - 0.006), trodden(a, w)])
}
/** @param {number} x @param {number} y @param {number} w @param {number} h @returns {(readonly [number, number])[]} */
const rect = (x, y, w, h) => [[x, y], [x + w, y], [x + w, y + h], [x, y + h]]
const ticks = Array.from(
  { length: 41 },
  (_, i) =>
    `<polyline points="${
      area([[-0.16 + 0.005 * i, 0.125], [-0.16 + 0.005 * i, i % 2 ? 0.132 : i % 10 ? 0.136 : 0.141]])
    }" stroke="#222" stroke-width="${i % 10 ? 1.6 : 2.6}" fill="none"/>`,
).join('')
const squares = Array.from(
  { length: 12 },
  (_, i) =>
    i % 2
      ? ''
      : `<polygon points="${
        area(rect(0.115 + 0.148 * (i % 4) / 4, -0.075 + 0.105 * Math.floor(i / 4) / 3, 0.037, 0.035))
      }" fill="#223"/>`,
).join('')
const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${W}" height="${H}">
<filter id="sand" x="0" y="0" width="100%" height="100%"><feTurbulence type="fractalNoise" baseFrequency="0.55" numOctaves="3" seed="7"/><feColorMatrix values="0.25 0 0 0 0.42  0.22 0 0 0 0.36  0.17 0 0 0 0.26  0 0 0 0 1"/></filter>
<filter id="soft"><feGaussianBlur stdDeviation="7"/></filter><filter id="edge"><feGaussianBlur stdDeviation="2"/></filter>
<rect width="${W}" height="${H}" filter="url(#sand)"/>
<polygon points="${area(outline)}" fill="#2a2013" opacity="0.55" filter="url(#edge)"/>
<polygon points="${
  area(outline.map(([x, y]) => [x + 0.003, y + 0.004]))
}" fill="none" stroke="#f0e2c4" stroke-width="6" opacity="0.5" filter="url(#soft)"/>
${cleats.map(c => `<polygon points="${area(c)}" fill="#150f08" opacity="0.45" filter="url(#edge)"/>`).join('')}
<polygon points="${area(rect(-0.172, 0.125, 0.224, 0.03))}" fill="#e9e3c8"/>${ticks}
<polygon points="${area(rect(0.115, -0.075, 0.148, 0.105))}" fill="#f4f4f0"/>${squares}
</svg>`
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-background-networking', '--disable-quic'],
})
const page = await browser.newPage({ viewport: { width: W, height: H } })
await page.setContent(`<style>body{margin:0}</style>${svg}`)
writeFileSync(
  fileURLToPath(new URL('../public/samples/print.jpg', import.meta.url)),
  await page.screenshot({ type: 'jpeg', quality: 78 }),
)
await browser.close()
console.log(
  'card',
  rect(0.115, -0.075, 0.148, 0.105).map(([x, y]) => at(x, y)).join('  '),
  'heel',
  at(...trodden(-0.142, 0)),
  'toe',
  at(...trodden(0.142, 0)),
  'sole',
  at(...trodden(0.055, 0.052)),
  at(...trodden(0.055, -0.052)),
  'ruler',
  at(-0.16, 0.125),
  at(0.04, 0.125),
)
