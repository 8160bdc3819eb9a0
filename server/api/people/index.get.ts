import { people } from '../../db/workshops'
import { route } from '../../route'

export default route('viewer', {}, ({ scope }) => people(scope))
