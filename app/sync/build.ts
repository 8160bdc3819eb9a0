interface Given { readonly __NUXT__?: { readonly config?: { readonly app?: { readonly buildId?: string } } } }

/** Which build this page is of; nothing where the stores are tested. */
export const ownBuild: string = (globalThis as Given).__NUXT__?.config?.app?.buildId ?? ''
