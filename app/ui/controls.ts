import type { App, Component } from 'vue'

let there: Promise<void> | undefined

/**
 * Makes the library of controls ready, with the theme of the house. What draws none of them (Today, the layouts) opens
 * without it, and is there a good deal sooner on a phone.
 */
export function haveControls(app: App): Promise<void> {
  there ??= install(app).catch((error: unknown) => {
    there = undefined
    throw error
  })
  return there
}
async function install(app: App): Promise<void> {
  const [{ default: PrimeVue }, { default: theme }]
    = await Promise.all([import('primevue/config'), import('~/assets/preset')])
  app.use(PrimeVue, { ripple: false, theme })
}

/**
 * A dialog that is fetched when it is opened first, with the controls it draws: the page is there sooner.
 * @param opens which of its props opens it
 */
export function openedLater<C extends Component>(load: () => Promise<{ default: C }>, opens: string): C {
  const later = defineComponent({
    inheritAttrs: false,
    setup(_, { attrs }) {
      const { vueApp } = useNuxtApp(), dialog = shallowRef<C>(), isThere = ref(false)
      let asked: Promise<void> | undefined
      async function fetchIt(): Promise<void> {
        const [{ default: fetched }] = await Promise.all([load(), haveControls(vueApp)])
        dialog.value = fetched
        await nextTick()
        isThere.value = true
      }
      return () => {
        if (attrs[opens] && !asked) asked = fetchIt()
        // It is there closed first, and hears how it opens, as it does the second time.
        const opening = isThere.value ? {} : { [opens]: undefined }
        return dialog.value ? h(dialog.value, { ...attrs, ...opening }) : null
      }
    },
  })
  return later as unknown as C
}
