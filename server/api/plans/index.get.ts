import { savedPlans } from '../../db/library'
import { route } from '../../route'

export default route('viewer', {}, ({ scope }) => savedPlans(scope))
