import { savedPlans } from '../../store/library'
import { route } from '../../route'

export default route('viewer', {}, ({ scope }) => savedPlans(scope))
