import { beforeEach, describe, expect, it, vi } from 'vitest'
import { questionsOf } from '~core/lessons/bank'
import { useRemembering } from './remembering'

const kept = new Map<string, string>()
beforeEach(() => {
  kept.clear()
  const store = {
    getItem: (k: string) => kept.get(k) ?? null, setItem: (k: string, v: string) => void kept.set(k, v),
    removeItem: (k: string) => void kept.delete(k),
  }
  vi.stubGlobal('localStorage', store)
})

describe('what was asked', () => {
  const day = 86_400_000, now = new Date('2026-12-01T10:00:00Z'), all = questionsOf('safety')
  it('what was missed comes again the same day and first; what is known after days, each time later', () => {
    const { answered, nextOf, standing } = useRemembering()
    expect(nextOf(all, now, 3).map(t => t.id)).toEqual(all.slice(0, 3).map(t => t.id))
    answered(all[0]!.id, true, now)
    answered(all[1]!.id, false, now)
    expect(standing('safety')).toEqual({ asked: 2, right: 1, of: all.length })
    const soon = nextOf(all, new Date(now.getTime() + day / 12), 20).map(t => t.id)
    expect(soon[0]).toBe(all[1]!.id)
    const wait = (from: Date): number => {
      for (let t = from.getTime(); ; t += day / 48)
        if (nextOf([all[0]!], new Date(t), 1).length > 0) return t - from.getTime()
    }
    let at = now, last = 0
    for (let n = 0; n < 4; n++) {
      const waited = wait(at)
      expect(waited).toBeGreaterThanOrEqual(last)
      last = waited
      at = new Date(at.getTime() + waited)
      answered(all[0]!.id, true, at)
    }
    expect(last).toBeGreaterThan(3 * day)
  })
})
