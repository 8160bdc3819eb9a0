import { bagCode } from '~core/formats/labels'
import { powderClass } from '~core/gypsum/powders'
import { libraryItems } from '../../store/library'
import { sendLabels } from '../../pdf'
import { serve } from '../../route'

/** Labels for the bags of the store, to print. */
export default serve('GET labels/bags', async ({ event, scope }) => {
  const bags = await libraryItems(scope, 'bag')
  return sendLabels(
    event,
    bags.map(b => ({
      code: bagCode(b.id),
      title: b.body.name,
      lines: [
        powderClass(b.body.classId).name,
        b.body.opened ? `Opened ${b.body.opened}` : 'Opened: ',
        b.body.uncertain ? 'Cup test before use' : '',
      ].filter(l => l !== ''),
    })),
    'Labels: bags',
  )
})
