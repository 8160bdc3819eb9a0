import { classes } from '../../store/classrooms'
import { serve } from '../../route'

export default serve('GET classes', ({ scope }) => classes(scope))
