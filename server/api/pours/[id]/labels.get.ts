import { castLabels } from '~core/formats/labels'
import { libraryItems } from '../../../store/library'
import { castsOfPour } from '../../../store/pours'
import { sendLabels } from '../../../pdf'
import { found, serve } from '../../../route'

/** Labels for the casts of a pour, to print. */
export default serve('GET pours/:id/labels', async ({ event, scope, params }) => {
  const { summary, casts } = found(await castsOfPour(scope, params.id), 'There is no such pour in this workshop.')
  const day = (at: number) =>
    new Date(at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
  const moulds = new Map((await libraryItems(scope, 'mould')).map(m => [m.id, m.body]))
  return sendLabels(event, castLabels(params.id, summary, casts, day, id => moulds.get(id)), `Labels: ${summary.name}`)
})
