import { savedPlans } from '../../store/library'
import { serve } from '../../route'

export default serve('GET plans', ({ scope }) => savedPlans(scope))
