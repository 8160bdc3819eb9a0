import { links } from '../../store/links'
import { route } from '../../route'

export default route('member', {}, ({ scope }) => links(scope))
