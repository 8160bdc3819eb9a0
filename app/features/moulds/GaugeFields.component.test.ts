import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import type { Gauge } from '~core/mould/gauge/gauge'
import type { ShellBody } from '~core/mould/gauge/shells'
import { METRIC } from '~core/units/units'
import { BLANK_BODIES, BLANK_GAUGES } from './blanks'
import GaugeFields from './GaugeFields.vue'

vi.mock('~/sync/session', () => ({ useSession: () => ({ units: METRIC }) }))
vi.mock('primevue/inputtext', () => ({ default: { props: ['modelValue'], template: '<input :value="modelValue">' } }))
vi.mock('primevue/button', () => ({ default: { template: '<button />' } }))
vi.mock('primevue/checkbox', () => ({ default: { template: '<input type="checkbox">' } }))
vi.mock('primevue/select', () => ({ default: { inheritAttrs: false, template: '<select />' } }))

const fields = (gauge: Gauge) => mount(GaugeFields, { props: { gauge } })
const box = (f: ReturnType<typeof fields>, label: string) =>
  f.get(`#${f.findAll('label').find(l => l.text() === label)!.attributes('for')}`)
async function type(f: ReturnType<typeof fields>, label: string, text: string) {
  await box(f, label).trigger('focus')
  await box(f, label).setValue(text)
}
const shown = (f: ReturnType<typeof fields>, label: string) => (box(f, label).element as HTMLInputElement).value
const last = (f: ReturnType<typeof fields>) => f.emitted<[Gauge]>('change')!.at(-1)![0]

describe('what one way of gauging asks for', () => {
  it.each(['dam', 'shell'] as const)('a new %s has the area that its sides show', (how) => {
    const { area, sides } = BLANK_GAUGES[how] as Extract<Gauge, { how: 'dam' | 'shell' }>
    expect(area).toBeCloseTo(sides!.width * sides!.length, 12)
  })

  it('a ring keeps the sides that were measured, and its area follows them', async () => {
    const ring = BLANK_GAUGES.dam as Extract<Gauge, { how: 'dam' }>
    const f = fields(ring)
    expect([shown(f, 'Ring, one side'), shown(f, 'Ring, other side')]).toEqual(['250 mm', '200 mm'])
    await type(f, 'Ring, one side', '30 cm')
    expect(last(f)).toMatchObject({ how: 'dam', area: 0.06, sides: { width: 0.3, length: 0.2 } })
    await f.setProps({ gauge: last(f) })
    expect([shown(f, 'Ring, other side')]).toEqual(['200 mm'])
    await type(f, 'Print, width', '12 cm')
    expect(last(f)).toMatchObject({ printArea: expect.closeTo(0.0336, 9), printSides: { width: 0.12, length: 0.28 } })
  })

  it('a shell around a box asks for its sides, and says what each of its layers takes', async () => {
    const shell = BLANK_GAUGES.shell as Extract<Gauge, { how: 'shell' }>
    const body = { ...BLANK_BODIES.box as Extract<ShellBody, { kind: 'box' }>, onTable: false }
    const f = fields({ ...shell, relief: 1, thickness: 0.01, layers: 3, body })
    expect([shown(f, 'Width'), shown(f, 'Length'), shown(f, 'Height')]).toEqual(['200 mm', '150 mm', '100 mm'])
    expect(f.text()).toMatch(/From the inside out: 1.445 ml, 1.755 ml, 2.090 ml\./)
    expect(f.text()).toMatch(/The last takes 44 % more than the first\./)
    await type(f, 'Height', '20 cm')
    expect(last(f)).toMatchObject({ how: 'shell', body: { kind: 'box', width: 0.2, length: 0.15, height: 0.2 } })
    await f.setProps({ gauge: { ...shell, layers: 2 } })
    expect(f.text()).toContain('From the inside out')
    expect(f.text()).not.toContain('more than the first')
  })

  it('of a ring whose area alone is known the sides are those of a square', () => {
    const f = fields({ how: 'dam', area: 0.04, printArea: 0.01, printDepth: 0.01, cover: 0.025 })
    expect([shown(f, 'Ring, one side'), shown(f, 'Ring, other side')]).toEqual(['200 mm', '200 mm'])
    expect(shown(f, 'Print, width')).toBe('100 mm')
  })
})
