import type { App } from 'vue'

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
