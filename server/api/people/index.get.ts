import { people } from '../../store/workshops'
import { route } from '../../route'

export default route('viewer', {}, ({ scope }) => people(scope))
