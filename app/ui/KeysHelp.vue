<script setup lang="ts">
/** Which keys work, at a press of `?`, wherever nothing is being typed. */
const dialog = useTemplateRef<HTMLDialogElement>('dialog')
const keys = shallowRef<readonly { readonly key: string, readonly does: string, readonly where: string }[]>([])
const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement && target.closest('input, textarea, select, [contenteditable], [role=combobox]') !== null
async function show(event: KeyboardEvent) {
  if (event.key !== '?' || event.ctrlKey || event.metaKey || event.altKey || typing(event.target)) return
  event.preventDefault()
  keys.value = (await import('~/features/help/words')).KEYS
  dialog.value?.showModal()
}
onMounted(() => addEventListener('keydown', show))
onBeforeUnmount(() => removeEventListener('keydown', show))
</script>

<template>
  <dialog ref="dialog" aria-labelledby="keys-head" @click.self="dialog?.close()">
    <h2 id="keys-head">Keys</h2>
    <dl>
      <template v-for="k in keys" :key="k.key">
        <dt><kbd>{{ k.key }}</kbd></dt>
        <dd>{{ k.does }} <span class="small soft">{{ k.where }}</span></dd>
      </template>
    </dl>
    <form method="dialog"><button>Close</button></form>
  </dialog>
</template>

<style scoped>
dialog { border: 2px solid var(--ink); border-radius: var(--radius); background: var(--sheet); color: var(--ink); padding: 20px 24px; max-width: min(34rem, 92vw); }
dialog::backdrop { background: rgb(0 0 0 / 35%); }
dl { display: grid; grid-template-columns: auto 1fr; gap: 8px 16px; margin: 12px 0 16px; }
dd { margin: 0; }
kbd { font: inherit; font-family: var(--numbers); font-weight: 700; border: 1.5px solid var(--line-strong); border-radius: 6px; padding: 1px 7px; white-space: nowrap; }
button { border: 2px solid var(--ink); border-radius: 10px; background: none; color: inherit; min-height: 40px; padding: 4px 18px; font-weight: 650; }
</style>
