import type { ChartConfiguration } from 'chart.js'
import { controlChart, FEWEST_FOR_LIMITS, shareOf } from '~core/logbook/control-chart'
import { formatDuration } from '~core/units/format'
import type { KeyTally, MonthTally, SetTime } from '~contract/logbook'

/** What the charts of the logbook show, worked out from the counts: drawings and their figures side by side. */

export interface Drawn {
  readonly config: ChartConfiguration<'bar' | 'line'>
  readonly label: string
  readonly head: readonly string[]
  readonly rows: readonly (readonly (string | number)[])[]
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']
export function monthWords(month: string): string {
  const [year, number] = month.split('-')
  return `${MONTHS[Number(number) - 1]} ${year!.slice(2)}`
}
export const percent = (share: number) => `${Math.round(100 * share)} %`
const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(`--${name}`)

/** Every month from the first to the last, also those in which nothing was poured: a gap is a finding. */
export function everyMonth(
  months: readonly MonthTally[],
): readonly (MonthTally | { readonly month: string, readonly counts?: undefined })[] {
  if (months.length === 0) return []
  const known = new Map(months.map(m => [m.month, m])), list = []
  for (let m = months[0]!.month; m <= months.at(-1)!.month; m = next(m)) list.push(known.get(m) ?? { month: m })
  return list
}
function next(month: string): string {
  const [year, number] = month.split('-').map(Number)
  return new Date(Date.UTC(year!, number!, 1)).toISOString().slice(0, 7)
}

/** How the pieces of each month came out, as shares; the range of “good” says how much of it is luck. */
export function resultsChart(months: readonly MonthTally[]): Drawn {
  const all = everyMonth(months),
    share = (m: typeof all[number], what: 'good' | 'second' | 'waste') =>
      m.counts?.judged ? m.counts[what] / m.counts.judged : null
  return {
    label: 'Pieces good, second and waste, by month',
    head: ['month', 'looked over', 'good', 'likely range of good', 'second', 'waste'],
    rows: all.map(({ month, counts }) => {
      const good = counts && shareOf(counts.good, counts.judged)
      return [
        monthWords(month),
        counts?.judged ?? 0,
        good ? percent(good.value) : '—',
        good ? `${percent(good.low)} to ${percent(good.high)}` : '—',
        counts?.judged ? percent(counts.second / counts.judged) : '—',
        counts?.judged ? percent(counts.waste / counts.judged) : '—',
      ]
    }),
    config: {
      type: 'bar',
      data: {
        labels: all.map(m => monthWords(m.month)),
        datasets: [
          { label: 'good', data: all.map(m => share(m, 'good')), backgroundColor: colour('set'), stack: 'all' },
          {
            label: 'second',
            data: all.map(m => share(m, 'second')),
            backgroundColor: colour('powder-mid'),
            stack: 'all',
          },
          { label: 'waste', data: all.map(m => share(m, 'waste')), backgroundColor: colour('heat'), stack: 'all' },
        ],
      },
      options: {
        scales: {
          x: { stacked: true, grid: { display: false } },
          y: { stacked: true, min: 0, max: 1, ticks: { callback: v => percent(Number(v)), maxTicksLimit: 5 } },
        },
        plugins: {
          tooltip: {
            callbacks: {
              label: item =>
                `${item.dataset.label}: ${percent(item.parsed.y ?? 0)} of ${all[item.dataIndex]!.counts?.judged ?? 0}`,
            },
          },
        },
      },
    },
  }
}

/** What a usable piece cost in each month, waste and wear in it; months whose prices are not known stay empty. */
export function costChart(months: readonly MonthTally[]): Drawn {
  const all = everyMonth(months),
    each = all.map(({ counts }) => counts && counts.pieces > 0 ? counts.costHundredths / 100 / counts.pieces : null),
    money = (x: number) => x.toLocaleString('en-GB', { minimumFractionDigits: 2, maximumFractionDigits: 2 })
  return {
    label: 'Cost of a usable piece, by month',
    head: ['month', 'usable pieces', 'cost of one'],
    rows: all.map((m, i) => [monthWords(m.month), m.counts?.pieces ?? 0, each[i] === null ? '—' : money(each[i]!)]),
    config: {
      type: 'line',
      data: {
        labels: all.map(m => monthWords(m.month)),
        datasets: [{
          label: 'cost',
          data: each,
          borderColor: colour('action'),
          backgroundColor: colour('action'),
          pointRadius: 4,
          spanGaps: true,
        }],
      },
      options: {
        scales: {
          x: { grid: { display: false } },
          y: { min: 0, ticks: { callback: v => money(Number(v)), maxTicksLimit: 5 } },
        },
        plugins: {
          tooltip: {
            callbacks: {
              label: item => `${money(item.parsed.y ?? 0)} each, of ${all[item.dataIndex]!.counts?.pieces ?? 0}`,
            },
          },
        },
      },
    },
  }
}

/** Casts of all months by what was wrong with them, the commonest first. */
export function defectsChart(defects: readonly KeyTally[]): Drawn {
  const sorted = [...defects].sort((a, b) => b.counts.casts - a.counts.casts).slice(0, 10)
  return {
    label: 'Casts by what was wrong',
    head: ['defect', 'casts', 'pours'],
    rows: sorted.map(d => [d.name, d.counts.casts, d.counts.pours]),
    config: {
      type: 'bar',
      data: {
        labels: sorted.map(d => d.name),
        datasets: [{ label: 'casts', data: sorted.map(d => d.counts.casts), backgroundColor: colour('heat') }],
      },
      options: {
        indexAxis: 'y',
        scales: { x: { ticks: { precision: 0, maxTicksLimit: 6 } }, y: { grid: { display: false } } },
      },
    },
  }
}

interface SetChart extends Drawn { readonly says: string }

/** What the chart of set times says in one sentence. */
function setSays(
  marked: number,
  limits: ReturnType<typeof controlChart>,
  values: readonly number[],
  odd: number,
): string {
  if (marked === 0) return 'No bucket has “gloss gone” marked yet. Mark it at the bench and this chart draws itself.'
  if (!limits) return `${marked} marked so far; from ${FEWEST_FOR_LIMITS} on the chart can say what is usual.`
  if (odd === 0) return 'Steady: every bucket within what is usual for it.'
  const outside = limits.outside.length > 0 ? `${limits.outside.length} outside what is usual. ` : ''
  if (limits.drifting.length === 0) return `${outside}Look at those pours for what was different.`
  const way = values[limits.drifting.at(-1)!]! > limits.centre ? 'slower' : 'faster'
  return `${outside}It has drifted: eight and more in a row ${way} than the middle. A bag that ages slows down or quickens; `
    + 'measure it with a cup.'
}

/** A level line across the chart. */
function levelLine(length: number, v: number, name: 'centre' | 'low' | 'high') {
  return {
    label: name,
    data: Array.from({ length }, () => v),
    borderColor: colour('line-strong'),
    borderDash: name === 'centre' ? [] : [6, 5],
    borderWidth: 1.2,
    pointRadius: 0,
  }
}
function setDatasets(values: readonly number[], limits: ReturnType<typeof controlChart>, odd: ReadonlySet<number>) {
  const each = <T>(strange: T, usual: T) => values.map((_, i) => odd.has(i) ? strange : usual)
  const colours = each(colour('heat'), colour('set'))
  const measured = {
    label: 'gloss gone',
    data: [...values],
    borderColor: colour('line-strong'),
    borderWidth: 1,
    backgroundColor: colours,
    pointBorderColor: colours,
    pointRadius: each(6, 4),
    pointStyle: each<'rectRot' | 'circle'>('rectRot', 'circle'),
  }
  if (!limits) return [measured]
  return [measured, ...(['centre', 'low', 'high'] as const).map(l => levelLine(values.length, limits[l], l))]
}

/**
 * When the gloss went, against what was forecast for that mix in that room: so that a cold day does not look like an
 * old bag.
 */
export function setChart(times: readonly SetTime[], day: (at: number) => string): SetChart {
  const values = times.map(t => t.actual / t.expected), limits = controlChart(values)
  const odd = new Set([...limits?.outside ?? [], ...limits?.drifting ?? []])
  const minutes = (t: number) => formatDuration(t, 'minute')
  const tip = ({ name, actual, expected }: SetTime) => `${name}: ${minutes(actual)}, forecast ${minutes(expected)}`
  return {
    says: setSays(times.length, limits, values, odd.size),
    label: 'When the gloss went, as a share of the forecast',
    head: ['pour', 'when', 'forecast', 'was', 'share'],
    rows: times.map((t, i) => [t.name, day(t.at), minutes(t.expected), minutes(t.actual), percent(values[i]!)]),
    config: {
      type: 'line',
      data: { labels: times.map(t => day(t.at)), datasets: setDatasets(values, limits, odd) },
      options: {
        scales: {
          x: { grid: { display: false }, ticks: { maxTicksLimit: 6, maxRotation: 0 } },
          y: { ticks: { callback: v => percent(Number(v)), maxTicksLimit: 6 } },
        },
        plugins: { tooltip: { callbacks: { label: item => tip(times[item.dataIndex]!) } } },
      },
    },
  }
}
