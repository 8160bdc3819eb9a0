import { ROUTES } from '~contract/routes'
import { checkAnswersBy } from './api'

/** Loaded in development and tests only: an answer that is not what its contract promises is said where it arrives. */
checkAnswersBy((name, answer) => {
  const contract = ROUTES[name]
  const told = 'answer' in contract ? contract.answer.safeParse(answer) : undefined
  if (told && !told.success) throw new Error(`${name} was not answered by its contract: ${told.error.message}`)
})

// A change of a contract, or of the core below it, is taken up here without loading the page anew.
if (import.meta.hot) import.meta.hot.accept()
