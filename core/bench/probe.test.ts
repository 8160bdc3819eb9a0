import { describe, expect, it } from 'vitest'
import { powderClass } from '../gypsum/powders'
import { settingCurve, settingMoments } from '../setting/hydration'
import type { SettingInput } from '../setting/setting-mix'
import { NO_PROBE, probed, probeFrom, type Probe } from './probe'

const input: SettingInput = {
  powder: powderClass('gypsum-cement'),
  ratio: 0.45,
  waterTemperature: 18,
  roomTemperature: 20,
  stir: { tool: 'hand', minutes: 2 },
  stirFrom: 240,
  section: 0.03,
  mould: 'silicone',
  wall: 0.008,
}
/** A cast that is worked out, read once a second with a tenth of a kelvin of noise. */
function follow(noise: (i: number) => number) {
  const { time, temperature } = settingCurve(input, 7200, 720)
  let probe: Probe = NO_PROBE
  const records: { at: number, celsius: number }[] = [], warmest: number[] = []
  for (let t = 300, i = 0; t < 7200; t++) {
    while (time[i + 1] !== undefined && time[i + 1]! <= t) i++
    const said = probed(probe, t, temperature[i]! + noise(t))
    probe = said.probe
    if (said.record !== undefined) records.push({ at: t, celsius: said.record })
    if (said.warmestAt !== undefined) warmest.push(said.warmestAt)
  }
  return { records, warmest }
}

describe('a thermometer in the cast', () => {
  const flicker = (i: number) => 0.1 * Math.sin(i * 12.9898)

  it('is recorded a kelvin at a time, not a reading a second', () => {
    const { records } = follow(flicker)
    expect(records.length).toBeLessThan(90)
    for (let i = 1; i < records.length; i++)
      expect(
        Math.abs(records[i]!.celsius - records[i - 1]!.celsius) >= 0.9 || records[i]!.at - records[i - 1]!.at >= 300,
      ).toBe(true)
  })

  it('says once when it was warmest, within a minute of the cast’s own moment', () => {
    const { warmest } = follow(flicker)
    expect(warmest).toHaveLength(1)
    expect(Math.abs(warmest[0]! - settingMoments(input).warmest)).toBeLessThan(60)
  })

  it('takes up where it was left, on this device or another: nothing is told twice, and the warmest is still found', () => {
    const { records, warmest } = follow(flicker), until = records.filter(r => r.at < warmest[0]!)
    let probe = probeFrom(until, false)
    expect(probed(probe, until.at(-1)!.at + 5, until.at(-1)!.celsius).record).toBeUndefined()
    let found: number | undefined
    const { time, temperature } = settingCurve(input, 7200, 720)
    for (const [i, t] of time.entries()) {
      if (t <= until.at(-1)!.at) continue
      const said = probed(probe, t, temperature[i]!)
      probe = said.probe
      found ??= said.warmestAt
    }
    expect(Math.abs(found! - warmest[0]!)).toBeLessThan(150)
    // One that is marked already is not marked again.
    expect(probed(probeFrom(records, true), 7200, records[0]!.celsius).warmestAt).toBeUndefined()
    expect(probeFrom([], false)).toEqual(NO_PROBE)
  })

  it('noise without heat has no warmest', () => {
    let probe: Probe = NO_PROBE, said = 0
    for (let t = 0; t < 3600; t++) {
      const answer = probed(probe, t, 20 + 1.5 * Math.sin(t * 78.233))
      probe = answer.probe
      if (answer.warmestAt !== undefined) said++
    }
    expect(said).toBe(0)
  })
})
