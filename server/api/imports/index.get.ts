import { importsOf } from '../../store/imports'
import { serve } from '../../route'

export default serve('GET imports', ({ scope }) => importsOf(scope))
