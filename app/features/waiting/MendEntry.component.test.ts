import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import PrimeVue from 'primevue/config'
import { beforeEach, expect, it } from 'vitest'
import type { Waiting } from '~/sync/outbox'
import MendEntry from './MendEntry.vue'

beforeEach(() => setActivePinia(createPinia()))

const entryOf = (happening: object) => ({
  pour: 'p',
  key: 'k',
  order: 1,
  refused: 'It was not taken.',
  event: { id: 'e', version: 2, happenedAt: 0, recordedAt: 0, device: 'd', deviceSeq: 1, ...happening },
}) as unknown as Waiting

it.each([
  ['temperature', { celsius: 180, where: 'room' }, 'Temperature', '18 °C', { celsius: 18, where: 'room' }],
  ['weighed', { what: 'water', mass: 9000, how: 'jug' }, 'Weighed', '900 g', { what: 'water', mass: 0.9, how: 'jug' }],
  ['measured', { what: 'rim', value: 62 }, 'Measured', '62 mm', { what: 'rim', value: 0.062 }],
  ['placed', { place: 'rack', air: { celsius: 180, humidity: 0.5 } }, 'Air there', '18 °C', {
    place: 'rack', air: { celsius: 18, humidity: 0.5 },
  }],
])('a number of the kind %s is said otherwise, and all else stays', async (kind, data, label, typed, mended) => {
  const page = mount(MendEntry, {
    props: { entry: undefined, run: undefined },
    global: { plugins: [PrimeVue], stubs: { Dialog: { template: '<div><slot /></div>' } } },
  })
  await page.setProps({ entry: entryOf({ kind, data }) })
  const field = page.findAll('label').find(l => l.text() === label)!.attributes('for')!, box = page.get(`#${field}`)
  await box.trigger('focus')
  await box.setValue(typed)
  await box.trigger('blur')
  await page.get('form').trigger('submit')
  expect(page.emitted('mended')![0]).toMatchObject([{ data: mended }])
})
