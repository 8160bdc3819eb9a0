import { devices } from '../../store/devices'
import { serve } from '../../route'

export default serve('GET devices', ({ scope }) => devices(scope))
