import { links } from '../../store/links'
import { serve } from '../../route'

export default serve('GET links', ({ scope }) => links(scope))
