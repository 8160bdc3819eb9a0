import { writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { dryStrength, wetStrength } from '../core/setting/hardening'
import { settingCurve, settingMoments } from '../core/setting/hydration'
import type { SettingInput } from '../core/setting/setting-mix'
import { temperatureFactor } from '../core/setting/kinetics'
import { solveMix } from '../core/gypsum/mix'
import { powderClass, type PowderClassId } from '../core/gypsum/powders'

/** Draws the figures of model.md and prints its tables, from the core as it is: `npm run figures`. */

interface Series {
  readonly label: string
  readonly colour: string
  readonly points: readonly (readonly [number, number])[]
  readonly dots?: boolean
  readonly dash?: string
}
interface Axis {
  readonly title: string
  readonly from: number
  readonly to: number
  readonly ticks: readonly number[]
}

const W = 640, H = 360, LEFT = 62, RIGHT = 16, TOP = 20, BOTTOM = 48

function plot(name: string, x: Axis, y: Axis, series: readonly Series[]): void {
  const px = (v: number) => LEFT + (W - LEFT - RIGHT) * (v - x.from) / (x.to - x.from)
  const py = (v: number) => H - BOTTOM - (H - TOP - BOTTOM) * (v - y.from) / (y.to - y.from)
  const parts = [
    ...x.ticks.map(t =>
      `<line x1="${px(t)}" x2="${px(t)}" y1="${TOP}" y2="${H - BOTTOM}" stroke="#cfd7d7"/><text x="${px(t)}" y="${
        H - BOTTOM + 17
      }" text-anchor="middle">${t}</text>`
    ),
    ...y.ticks.map(t =>
      `<line x1="${LEFT}" x2="${W - RIGHT}" y1="${py(t)}" y2="${py(t)}" stroke="#cfd7d7"/><text x="${LEFT - 7}" y="${
        py(t) + 4
      }" text-anchor="end">${t}</text>`
    ),
    `<text x="${(LEFT + W - RIGHT) / 2}" y="${
      H - 9
    }" text-anchor="middle">${x.title}</text><text transform="translate(15 ${
      (TOP + H - BOTTOM) / 2
    }) rotate(-90)" text-anchor="middle">${y.title}</text>`,
    ...series.map(s =>
      s.dots
        ? s.points.map(([a, b]) =>
          `<circle cx="${px(a).toFixed(1)}" cy="${py(b).toFixed(1)}" r="4.5" fill="${s.colour}"/>`
        ).join('')
        : `<path d="${
          s.points.map(([a, b], i) => `${i ? 'L' : 'M'}${px(a).toFixed(1)} ${py(b).toFixed(1)}`).join('')
        }" fill="none" stroke="${s.colour}" stroke-width="2.2"${s.dash ? ` stroke-dasharray="${s.dash}"` : ''}/>`
    ),
    ...series.filter(s => s.label).map((s, i) =>
      `<text x="${W - RIGHT - 8}" y="${
        TOP + 18 + 17 * i
      }" text-anchor="end" fill="${s.colour}" font-weight="600">${s.label}</text>`
    ),
  ]
  writeFileSync(
    fileURLToPath(new URL(`./figures/${name}.svg`, import.meta.url)),
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${W} ${H}" width="${W}" height="${H}" font-family="sans-serif" font-size="12" fill="#13201f"><rect width="${W}" height="${H}" fill="#fbfcfc"/>${
      parts.join('')
    }</svg>\n`,
  )
}

const range = (from: number, to: number, n: number) =>
  Array.from({ length: n + 1 }, (_, i) => from + (to - from) * i / n)
const input = (id: PowderClassId, part: Partial<SettingInput> = {}): SettingInput => ({
  powder: powderClass(id),
  ratio: powderClass(id).ratio.recommended,
  waterTemperature: 21,
  roomTemperature: 21,
  stir: { tool: 'spatula', minutes: 100 / 110 },
  section: 0.025,
  mould: 'plastic',
  ...part,
})
const porosity = (id: PowderClassId, ratio: number) =>
  solveMix({ powder: powderClass(id), ratio, waterTemperature: 21 }, { what: 'powder', amount: 1 }).dryPorosity
const neat = (id: PowderClassId, ratio: number) => ({ porosity: porosity(id, ratio), grains: 0 })
const INK = '#13201f', TEAL = '#0b5f66', PLUM = '#8a3f74', OLIVE = '#66650e', HEAT = '#c03a22'

// Setting time: dental materials handbook, 23 degC, 40 mm specimen, whole minutes, from memory.
const SET: readonly (readonly [PowderClassId, number, number, number])[] = [
  ['dental-type-2', 0.45, 100, 8],
  ['dental-type-2', 0.50, 100, 11],
  ['dental-type-2', 0.55, 100, 14],
  ['dental-type-2', 0.50, 20, 14],
  ['dental-type-2', 0.50, 200, 8],
  ['dental-type-3', 0.27, 100, 4],
  ['dental-type-3', 0.30, 100, 7],
  ['dental-type-3', 0.33, 100, 8],
  ['dental-type-4', 0.22, 100, 5],
  ['dental-type-4', 0.24, 100, 7],
  ['dental-type-4', 0.26, 100, 9],
]
const set = SET.map(([id, ratio, turns, published]) => ({
  id,
  ratio,
  turns,
  published,
  model:
    settingMoments(
      input(id, {
        ratio,
        waterTemperature: 23,
        roomTemperature: 23,
        section: 0.04,
        stir: { tool: 'spatula', minutes: turns / 110 },
      }),
    ).glossGone / 60,
}))
const rms = Math.sqrt(set.reduce((sum, s) => sum + (s.model - s.published) ** 2, 0) / set.length)
console.log('| powder, ratio, turns | published min | model min |\n|---|---|---|')
for (const s of set)
  console.log(`| ${s.id} ${(s.ratio * 100).toFixed(0)}, ${s.turns} | ${s.published} | ${s.model.toFixed(2)} |`)
console.log(`\nroot mean square ${rms.toFixed(2)} min\n`)
plot('setting-time', { title: 'published, minutes', from: 2, to: 16, ticks: [2, 4, 6, 8, 10, 12, 14, 16] }, {
  title: 'model, minutes',
  from: 2,
  to: 16,
  ticks: [2, 4, 6, 8, 10, 12, 14, 16],
}, [
  { label: '', colour: '#7c8b8a', points: [[2, 2], [16, 16]], dash: '5 4' },
  {
    label: 'Type 2',
    colour: TEAL,
    dots: true,
    points: set.filter(s => s.id === 'dental-type-2').map(s => [s.published, s.model]),
  },
  {
    label: 'Type 3',
    colour: PLUM,
    dots: true,
    points: set.filter(s => s.id === 'dental-type-3').map(s => [s.published, s.model]),
  },
  {
    label: 'Type 4',
    colour: OLIVE,
    dots: true,
    points: set.filter(s => s.id === 'dental-type-4').map(s => [s.published, s.model]),
  },
])

plot(
  'temperature',
  { title: 'temperature, °C', from: 0, to: 100, ticks: [0, 10, 20, 30, 40, 50, 60, 70, 80, 90, 100] },
  { title: 'speed of setting against 21 °C', from: 0, to: 1.2, ticks: [0, 0.2, 0.4, 0.6, 0.8, 1, 1.2] },
  [
    { label: '', colour: HEAT, points: range(0, 100, 200).map(t => [t, temperatureFactor(t)]) },
  ],
)

// Strength: wet after one hour, dental materials handbook; dry, pottery plaster handbook; both from memory.
const WET: readonly (readonly [PowderClassId, number, number])[] = [
  ['dental-type-2', 0.45, 12.5],
  ['dental-type-2', 0.50, 11],
  ['dental-type-2', 0.55, 9],
  ['dental-type-3', 0.27, 31],
  ['dental-type-3', 0.30, 20.5],
  ['dental-type-3', 0.50, 10.5],
  ['dental-type-4', 0.24, 38],
  ['dental-type-4', 0.30, 21.5],
  ['dental-type-4', 0.50, 10.5],
]
const DRY: readonly (readonly [number, number])[] = [
  [0.3, 80.5],
  [0.4, 47.4],
  [0.5, 32.2],
  [0.6, 22.8],
  [0.7, 17.2],
  [0.8, 12.5],
  [0.9, 9.0],
  [1.0, 6.3],
]
console.log('| wet, ratio | published MPa | model MPa |\n|---|---|---|')
for (const [id, ratio, mpa] of WET)
  console.log(
    `| ${id} ${(ratio * 100).toFixed(0)} | ${mpa} | ${wetStrength(powderClass(id), neat(id, ratio)).toFixed(1)} |`,
  )
console.log('\n| dry, pottery plaster, ratio | published MPa | model MPa |\n|---|---|---|')
for (const [ratio, mpa] of DRY)
  console.log(
    `| ${(ratio * 100).toFixed(0)} | ${mpa} | ${
      dryStrength(powderClass('pottery-plaster'), neat('pottery-plaster', ratio)).toFixed(1)
    } |`,
  )
plot('strength', { title: 'water per 100 powder', from: 20, to: 100, ticks: [20, 30, 40, 50, 60, 70, 80, 90, 100] }, {
  title: 'compressive strength, MPa',
  from: 0,
  to: 90,
  ticks: [0, 15, 30, 45, 60, 75, 90],
}, [
  {
    label: 'dry (points: pottery plaster)',
    colour: INK,
    points: range(0.3, 1, 70).map(
      w => [100 * w, dryStrength(powderClass('pottery-plaster'), neat('pottery-plaster', w))]
    ),
  },
  { label: '', colour: INK, dots: true, points: DRY.map(([w, mpa]) => [100 * w, mpa]) },
  {
    label: 'wet (points: dental types)',
    colour: TEAL,
    points: range(0.22, 1, 78).map(
      w => [100 * w, wetStrength(powderClass('dental-type-3'), neat('dental-type-3', w))]
    ),
  },
  { label: '', colour: TEAL, dots: true, points: WET.map(([, w, mpa]) => [100 * w, mpa]) },
])

// A set as it is drawn on the plan: 25 mm in rigid plastic, open on top.
const courses = ([['plaster-of-paris', INK], ['gypsum-cement', TEAL], ['dental-type-4', PLUM]] as const).map(
  ([id, colour]): Series => {
    const curve = settingCurve(input(id), 7200, 400)
    return { label: powderClass(id).name, colour, points: curve.time.map((t, i) => [t / 60, curve.temperature[i]!]) }
  },
)
plot('heat', { title: 'minutes after powder met water', from: 0, to: 120, ticks: [0, 20, 40, 60, 80, 100, 120] }, {
  title: 'hottest place, °C',
  from: 10,
  to: 80,
  ticks: [10, 20, 30, 40, 50, 60, 70, 80],
}, courses)

console.log(
  '\n| class, at its ratio, 21 °C, 25 mm | pours until | webs | gloss gone | final | opens, flexible | rigid | warmest | cool |\n|---|---|---|---|---|---|---|---|---|',
)
for (
  const id of [
    'plaster-of-paris',
    'casting-plaster',
    'pottery-plaster',
    'gypsum-cement',
    'high-strength-gypsum-cement',
    'dental-type-2',
    'dental-type-3',
    'dental-type-4',
    'dental-type-5',
    'investment-plaster',
  ] as const
) {
  const m = settingMoments(input(id)), min = (s: number) => (s / 60).toFixed(s < 1200 ? 1 : 0)
  console.log(
    `| ${powderClass(id).name} | ${min(m.pourBy)} | ${min(m.webbing)} | ${min(m.glossGone)} | ${min(m.finalSet)} | ${
      min(m.openFlexible)
    } | ${min(m.openRigid)} | ${m.warmestTemperature.toFixed(0)} °C at ${min(m.warmest)} | ${min(m.coolAgain)} |`,
  )
}
