import { expose } from 'comlink'
import { readTableFile } from '~/features/logbook/table-file'

/** Somebody's table, read beside the page. */
const work = { read: readTableFile }
export type TableWork = typeof work
expose(work)
