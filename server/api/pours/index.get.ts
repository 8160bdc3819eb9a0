import { pourRows } from '../../db/pours'
import { route } from '../../route'

export default route('viewer', {}, ({ scope }) => pourRows(scope))
