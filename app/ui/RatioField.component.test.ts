import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { powderClass } from '~core/gypsum/powders'
import { METRIC } from '~core/units/units'
import RatioField from './RatioField.vue'

vi.mock('~/sync/session', () => ({ useSession: () => ({ units: METRIC }) }))

const field = () => mount(RatioField, {
  props: { modelValue: 0.7, label: 'Water per 100 powder', powder: powderClass('plaster-of-paris') },
})
type Made = ReturnType<typeof field>
const say = (f: Made, text: string) => f.get('input').setValue(text)
const told = (f: Made) => f.emitted<[number]>('update:modelValue')?.map(([v]) => Math.round(1000 * v)) ?? []

describe('a field for a ratio', () => {
  it('takes a plain number as it stands', async () => {
    const f = field()
    await say(f, '65')
    expect(told(f)).toEqual([650])
    expect(f.find('[role=status]').exists()).toBe(false)
  })

  it('asks which of two readings is meant, one press each, and then offers the other', async () => {
    const f = field()
    await say(f, '2:1')
    expect(told(f)).toEqual([])
    expect(f.get('[role=alert]').text()).toBe('72 by volume, or 50 by weight?')
    await f.findAll('button')[1]!.trigger('click')
    expect(told(f)).toEqual([500])
    expect(f.get('[role=status]').text()).toBe('50 water to 100 powder')
    await f.setProps({ modelValue: 0.5 })
    await f.get('button').trigger('click')
    expect(told(f)).toEqual([500, 720])
    expect(f.get('[role=status]').text()).toBe('72 water to 100 powder, by volume')
    // What is set from elsewhere was not typed here.
    await f.setProps({ modelValue: 0.6 })
    expect(f.find('[role=status]').exists()).toBe(false)
    expect(f.find('button').exists()).toBe(false)
  })

  it('keeps what it had when it cannot be read, and says what to type', async () => {
    const f = field()
    await say(f, '10 lb to 1')
    expect(told(f)).toEqual([])
    expect(f.get('[role=alert]').text()).toContain('like “10 lb to a gallon”')
    expect((f.get('input').element as HTMLInputElement).value).toBe('70')
  })
})
