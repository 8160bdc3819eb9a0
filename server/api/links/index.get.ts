import { links } from '../../db/links'
import { route } from '../../route'

export default route('member', {}, ({ scope }) => links(scope))
