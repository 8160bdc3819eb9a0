import { onMounted, reactive, ref } from 'vue'
import type { LibraryBodies, LibraryItem, LibraryKind } from '~contract/library'
import { newId, Refused } from '~/sync/api'
import type { Version } from '~/sync/kept-changes'
import { useLibrary } from '~/sync/library'

/** Editing one thing of the library in a dialog: a copy that is checked by its schema and saved whole, or left. */
export function useEditing<K extends LibraryKind>(kind: K, blank: () => LibraryBodies[K]) {
  const library = useLibrary()
  const open = ref(false)
  const trouble = ref('')
  const busy = ref(false)
  const item = reactive({ id: '', from: undefined, body: blank() as object }) as {
    id: string
    from: Version | undefined
    body: LibraryBodies[K]
  }

  // Made for a plan that waits: it goes back there, and is chosen.
  const { make, for: of } = useRoute().query, plan = make === kind && /^[\w-]{36}$/.test(String(of)) ? String(of) : ''
  onMounted(() => {
    if (plan) edit()
  })
  function edit(existing?: LibraryItem<K>): void {
    item.id = existing?.id ?? newId()
    item.from = existing && { revision: existing.revision, stamp: existing.stamp }
    item.body = existing ? JSON.parse(JSON.stringify(existing.body)) as LibraryBodies[K] : blank()
    trouble.value = ''
    open.value = true
  }
  async function attempt(work: () => Promise<void>): Promise<void> {
    busy.value = true
    trouble.value = ''
    try {
      await work()
      open.value = false
    }
    catch (error) {
      trouble.value = error instanceof Refused ? error.sentence : (error as Error).message
    }
    finally {
      busy.value = false
    }
  }
  const save = () =>
    attempt(async () => {
      // Fetched with the first save: a list opens without it.
      const { LIBRARY } = await import('~contract/library')
      const checked = LIBRARY[kind].safeParse(item.body)
      if (!checked.success) throw new Error(checked.error.issues[0]!.message)
      await library.save(kind, item.id, checked.data as LibraryBodies[K], item.from)
      if (plan && item.from === undefined) await navigateTo({ path: `/plan/${plan}`, query: { [kind]: item.id } })
    })
  const putAway = () => attempt(() => library.archive(kind, item.id, item.from))
  return { open, trouble, busy, item, edit, save, putAway }
}
