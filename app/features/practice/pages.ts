import { computed, ref } from 'vue'
import type { Page } from '~core/lessons/page'
import { MOST_PAGE_QUESTIONS, pageSchema, type PageBody } from '~contract/page'
import { plainly } from '~contract/zod'
import { savedByItself } from '~/sync/by-itself'
import { useLibrary } from '~/sync/library'
import { useSession } from '~/sync/session'

/** A page of one's own in hand: what it says and asks, saved by itself. */

type Deep<T> = T extends object ? { -readonly [K in keyof T]: Deep<T[K]> } : T
const emptyQuestion = () => ({ asks: '', right: { words: '', why: '' }, wrong: [{ words: '', why: '' }] })
const MOST_WRONG = 3

/** What can be asked of it: questions that are whole. A page that is being written is saved without the others. */
const isWhole = ({ asks, right, wrong }: Page['questions'][number]) =>
  asks.trim() !== '' && right.words.trim() !== '' && wrong.some(w => w.words.trim() !== '')

export function usePageInHand(id: string) {
  const library = useLibrary(), session = useSession()
  const known = library.items.page.find(p => p.id === id)
  const body = ref<Deep<Page>>(JSON.parse(JSON.stringify(known?.body ?? { name: '', text: '', questions: [] })) as Deep<Page>)
  const whole = computed<Page>(() => ({
    ...body.value,
    questions: body.value.questions.filter(isWhole).map(q => ({ ...q, wrong: q.wrong.filter(w => w.words.trim() !== '') })),
  }))
  const saved = savedByItself(() => ({ what: 'item', kind: 'page', id }), () => {
    const read = pageSchema.safeParse(whole.value, { error: plainly })
    return read.success ? read.data satisfies PageBody : read.error.issues[0]!.message
  })
  saved.begin(known && { revision: known.revision, stamp: known.stamp })
  function change(work: (page: Deep<Page>) => void): void {
    work(body.value)
    if (session.mayWrite) saved.touch()
  }
  return {
    body, whole, saved, change,
    addQuestion: () => change(p => void p.questions.push(emptyQuestion())),
    dropQuestion: (n: number) => change(p => void p.questions.splice(n, 1)),
    addWrong: (n: number) => change(p => void p.questions[n]!.wrong.push({ words: '', why: '' })),
    dropWrong: (n: number, i: number) => change(p => void p.questions[n]!.wrong.splice(i, 1)),
    /** Of its questions, how many are not whole yet. */
    unfinished: computed(() => body.value.questions.length - whole.value.questions.length),
    mayAsk: computed(() => body.value.questions.length < MOST_PAGE_QUESTIONS),
    mayMislead: (n: number) => body.value.questions[n]!.wrong.length < MOST_WRONG,
  }
}
