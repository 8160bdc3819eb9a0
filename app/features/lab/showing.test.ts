import { describe, expect, it } from 'vitest'
import { METRIC, US_CUSTOMARY } from '~core/units/units'
import type { LabFact } from '~core/lab/facts'
import { differs, showFact } from './showing'

const fact = (unit: LabFact['unit'], value: number, low?: number, high?: number): LabFact => ({
  id: 'pour',
  unit,
  value,
  low,
  high,
})
const shown = (f: LabFact, prefs = METRIC) => Object.values(showFact(f, prefs)).join(' | ').replace(/[\u2009]/g, ' ')

describe('how a fact is shown', () => {
  it.each<[LabFact, string]>([
    [fact('time', 437, 300, 660), '7 min 15 s | 5–11 min'],
    [fact('time', 1485, 1080, 2160), '25 min | 18–36 min'],
    [fact('time', 9857, 8400, 12_000), '2 h 44 | 2 h 20 – 3 h 20'],
    [fact('time', 302_400, 172_800, 561_600), '3½ d | 2–6½ d'],
    [fact('time', 43_200, 20_000, 43_200), 'not within 12 h | 5 h 35 or longer'],
    [fact('time', 0, 0, 30), '0 s | 0–30 s'],
    [fact('fine', 0.24e-3, 0.16e-3, 0.48e-3), '0.24 mm | 0.16–0.48 mm'],
    [fact('fine', Infinity), 'none | '],
    [fact('percent', 0.0026, 0.0016, 0.0044), '0.26 % | 0.16–0.44 %'],
    [fact('share', 0.0015), '0 % | '],
    [fact('strength', 6.31, 5.4, 12.3), '6.3 MPa | 5.4–12 MPa'],
    [fact('density', 1063), '1.06 kg/l | '],
    [fact('temperature', 46.2, 41.1, 49.4), '46 °C | 41–49 °C'],
  ])('%o is %s', (f, words) => {
    expect(shown(f)).toBe(words)
  })

  it('speaks pounds to those who weigh in pounds', () => {
    expect(shown(fact('strength', 13.1), US_CUSTOMARY)).toBe('1 900 psi | ')
    expect(shown(fact('fine', 0.5e-3), US_CUSTOMARY)).toBe('20 thou | ')
  })

  it('a difference counts when it is seen and when it is large enough', () => {
    expect(differs(fact('time', 600), fact('time', 700), METRIC)).toBe(true)
    expect(differs(fact('time', 600), fact('time', 612), METRIC)).toBe(false)
    expect(differs(fact('share', 0), fact('share', 0.0015), METRIC)).toBe(false)
    expect(differs(undefined, fact('time', 1), METRIC)).toBe(false)
  })
})
