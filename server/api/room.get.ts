import { roomOf } from '../store/room'
import { serve } from '../route'

export default serve('GET room', ({ scope }) => roomOf(scope))
