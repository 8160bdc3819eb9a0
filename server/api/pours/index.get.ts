import { pourRows } from '../../store/pours'
import { serve } from '../../route'

export default serve('GET pours', ({ scope }) => pourRows(scope))
