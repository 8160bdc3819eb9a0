/** Contracts are loaded where answers are held against them, and nowhere else. */
export default defineNuxtPlugin(async () => {
  if (import.meta.dev || useRuntimeConfig().public.checkAnswers) await import('~/sync/check-answers')
})
