import { pourRows } from '../../store/pours'
import { route } from '../../route'

export default route('viewer', {}, ({ scope }) => pourRows(scope))
