import { expose } from 'comlink'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, expect, it, vi } from 'vitest'
import { useModel } from './model'

afterEach(() => void vi.unstubAllGlobals())

/** A worker on the other end of a channel that answers at once and says how far it is only afterwards. */
function tellsLate(late: Promise<void>, told: () => void) {
  return class {
    readonly #channel = new MessageChannel()
    constructor() {
      expose({
        hold: () => undefined,
        tilt(_: unknown, progress: (share: number) => Promise<void>) {
          void late.then(() => progress(0.5)).then(told)
          return { angle: 0 }
        },
      }, this.#channel.port2)
      this.#channel.port1.start()
    }

    addEventListener(kind: 'message', listener: EventListener) {
      this.#channel.port1.addEventListener(kind, listener)
    }

    removeEventListener(kind: 'message', listener: EventListener) {
      this.#channel.port1.removeEventListener(kind, listener)
    }

    postMessage(message: unknown, transfer: Transferable[] = []) {
      this.#channel.port1.postMessage(message, transfer)
    }

    terminate() {
      this.#channel.port1.close()
    }
  }
}

it('a word of progress that comes after the answer does not make it look busy for ever', async () => {
  let letGo = () => {}, heard = () => {}
  const late = new Promise<void>((done) => { letGo = done }), told = new Promise<void>((done) => { heard = done })
  vi.stubGlobal('Worker', tellsLate(late, () => heard()))
  setActivePinia(createPinia())
  const model = useModel(), asked = model.lookForTilt()
  expect(model.working?.what).toBe('Trying tilts')
  await asked
  expect([model.tilt, model.working]).toEqual([{ angle: 0 }, undefined])
  letGo()
  await told
  expect(model.working).toBeUndefined()
  model.cancel()
})
