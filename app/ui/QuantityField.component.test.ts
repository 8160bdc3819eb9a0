import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { METRIC } from '~core/units/units'
import QuantityField from './QuantityField.vue'

const changeUnits = vi.fn<(part: object) => Promise<void>>(() => Promise.resolve())
vi.mock('~/sync/session', () => ({ useSession: () => ({ units: METRIC, isOwner: true, changeUnits }) }))
vi.mock('primevue/inputtext', () => ({
  default: { props: ['modelValue', 'invalid'], template: '<input :value="modelValue" :aria-invalid="invalid">' },
}))

const field = (props: object = {}) =>
  mount(QuantityField, { props: { kind: 'mass', label: 'Water', modelValue: 0.5, ...props } })
type Made = ReturnType<typeof field>
async function type(f: Made, text: string) {
  const box = f.get('input')
  await box.trigger('focus')
  await box.setValue(text)
}
const told = (f: Made, event: string) => f.emitted<[number | undefined]>(event)?.map(([v]) => v) ?? []

describe('a field for a number with its unit', () => {
  it('reads it as people type it, while they type, and settles once', async () => {
    const f = field()
    await type(f, '1.2 kg')
    expect(told(f, 'update:modelValue')).toEqual([1.2])
    await f.get('input').trigger('keydown', { key: 'Enter' })
    await f.get('input').trigger('blur')
    expect(told(f, 'settled')).toEqual([1.2])
  })

  it('says in words what it cannot read, keeps the old value, and forgets the words at the next key', async () => {
    const f = field()
    await type(f, 'a lot')
    expect(f.find('[role=alert]').exists()).toBe(false)
    await f.get('input').trigger('blur')
    expect(f.get('[role=alert]').text()).toMatch(/The old value is kept\.$/)
    expect(told(f, 'update:modelValue')).toEqual([])
    expect((f.get('input').element as HTMLInputElement).value).toBe('500 g')
    await type(f, '600 g')
    expect(f.find('[role=alert]').exists()).toBe(false)
  })

  it('emptied it means “not decided” only where that is allowed', async () => {
    const f = field(), clearable = field({ clearable: true })
    await type(f, '')
    await type(clearable, '')
    expect(told(f, 'update:modelValue')).toEqual([])
    expect(told(clearable, 'update:modelValue')).toEqual([undefined])
    expect(told(clearable, 'given')).toEqual([])
  })

  it('tells a number apart from one that is more than nothing', async () => {
    const f = field({ kind: 'temperature', modelValue: 20 })
    await type(f, '0 °C')
    expect(told(f, 'given')).toEqual([0])
    expect(told(f, 'amount')).toEqual([])
    await type(f, '5')
    expect(told(f, 'amount')).toEqual([5])
  })

  it('a rule of its own refuses in its own words', async () => {
    const f = field({ check: (v: number) => v > 0 ? undefined : 'More than nothing.' })
    await type(f, '0 g')
    await f.get('input').trigger('blur')
    expect(f.get('[role=alert]').text()).toMatch(/^More than nothing\./)
  })

  it('says what it understood where it may be another thing, with one press for that', async () => {
    const f = field()
    await type(f, '1 lb 4 oz')
    expect(f.get('[role=status]').text()).toBe('1 lb 4 oz = 567 g')
    await type(f, '1,250')
    expect(f.get('[role=status]').text()).toBe('1\u2009250 g')
    await f.get('button.other').trigger('click')
    expect(told(f, 'settled')).toEqual([0.00125])
    expect(f.get('[role=status]').text()).toBe('1.25 g')
    expect(f.get('button.other').text()).toBe('1\u2009250 g?')
    await type(f, '600 g')
    expect(f.find('[role=status]').exists()).toBe(false)
    // What is set from elsewhere was not typed here.
    await type(f, '2 lb')
    await f.setProps({ modelValue: 0.3 })
    expect(f.find('[role=status]').exists()).toBe(false)
  })

  it('asks in one question where nobody has said whose pint it is, once for the workshop', async () => {
    const f = field({ kind: 'volume', field: 'holds', modelValue: 1e-3 })
    await type(f, '1 pint')
    await f.get('input').trigger('blur')
    expect(f.get('[role=alert]').text()).toMatch(/^A US pint \(473 ml\) or an imperial pint \(568 ml\)\?/)
    await f.findAll('button.other')[1]!.trigger('click')
    expect(told(f, 'settled')[0]).toBeCloseTo(568.26125e-6, 12)
    expect(f.get('[role=status]').text()).toBe('1 imperial pint = 568 ml')
    expect(changeUnits).toHaveBeenCalledWith({ region: 'imperial' })
  })

  it('offers what makes sense where the plain reading makes none', async () => {
    const f = field({ field: 'batch' })
    await type(f, '1 250 kg')
    await f.get('input').trigger('blur')
    expect(f.get('[role=alert]').text()).toBe('1\u2009250 kg makes no sense here. 1\u2009250 g?')
    await f.get('button.other').trigger('click')
    expect(told(f, 'settled')).toEqual([1.25])
    expect(f.find('[role=alert]').exists()).toBe(false)
  })
})
