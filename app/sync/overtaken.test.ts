import { describe, expect, it } from 'vitest'
import { overtaking } from './overtaken'

describe('a list that is overtaken by a single answer', () => {
  it('has what was told while it was on its way, and nothing from before it was asked for', async () => {
    let told: string[] = []
    const single = overtaking((name: string) => {
      told = [...told.filter(t => t !== name), name]
    })
    let arrive = (_: string[]) => {}
    single.heard('before')
    const loading = single.during(async (layAgain) => {
      told = await new Promise<string[]>((done) => {
        arrive = done
      })
      layAgain()
    })
    single.heard('meanwhile')
    arrive(['old'])
    await loading
    expect(told).toEqual(['old', 'meanwhile'])
    // The next list is newer than all of it, also after one that failed.
    await single.during(() => Promise.reject(new Error('away'))).catch(() => {})
    await single.during(async (layAgain) => {
      told = ['newest']
      layAgain()
    })
    expect(told).toEqual(['newest'])
  })
})
