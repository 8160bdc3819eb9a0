import { useLocalStorage } from '@vueuse/core'
import { createEmptyCard, fsrs, Rating, type Card } from 'ts-fsrs'
import { BANK, questionsOf } from '~core/lessons/bank'
import type { LessonId, Template } from '~core/lessons/types'

/** What was asked and how it went, in this browser only: what was missed comes again sooner, what is known later. */

interface Kept { readonly card: Card, readonly right: boolean }
/** As text it has no dates. */
type CardAsText = Omit<Card, 'due' | 'last_review'> & { readonly due: string }
type Told = Readonly<Record<string, { readonly card: CardAsText, readonly right: boolean }>>

const scheduler = fsrs({ enable_fuzz: false })

export function useRemembering() {
  const told = useLocalStorage<Told>('practice-asked', {})
  function kept(id: string): Kept | undefined {
    const found = told.value[id]
    return found && { right: found.right, card: { ...found.card, due: new Date(found.card.due) } as Card }
  }
  function answered(id: string, right: boolean, now: Date): void {
    const { card } = scheduler.next(kept(id)?.card ?? createEmptyCard(now), now, right ? Rating.Good : Rating.Again)
    told.value = { ...told.value, [id]: { right, card: JSON.parse(JSON.stringify(card)) as Told[string]['card'] } }
  }
  const dueAt = (id: string): number => kept(id)?.card.due.getTime() ?? 0
  /** Missed first, then new ones, then what is due again; nothing that is not due yet. */
  function nextOf(from: readonly Template[], now: Date, count: number): readonly Template[] {
    const rank = (t: Template) => {
      const known = told.value[t.id]
      if (!known) return 1
      return known.right ? 2 : 0
    }
    return from.filter(t => dueAt(t.id) <= now.getTime())
      .sort((a, b) => rank(a) - rank(b) || dueAt(a.id) - dueAt(b.id)).slice(0, count)
  }
  const standing = (lesson: LessonId) => {
    const all = questionsOf(lesson)
    return {
      asked: all.filter(t => told.value[t.id]).length,
      right: all.filter(t => told.value[t.id]?.right).length,
      of: all.length,
    }
  }
  const due = (now: Date): number => BANK.filter(t => told.value[t.id] && dueAt(t.id) <= now.getTime()).length
  return { answered, nextOf, standing, due }
}
