import { checkAnswersBy } from '~/sync/api'

/** In development and tests an answer that is not what its contract promises is said at once, where it arrives. */
export default defineNuxtPlugin(async () => {
  if (!import.meta.dev && !useRuntimeConfig().public.checkAnswers) return
  const { ROUTES } = await import('~contract/routes')
  checkAnswersBy((name, answer) => {
    const contract = ROUTES[name]
    const told = 'answer' in contract ? contract.answer.safeParse(answer) : undefined
    if (told && !told.success) throw new Error(`${name} was not answered by its contract: ${told.error.message}`)
  })
})
