import type { Component } from 'vue'

/**
 * Large controls that stand in forms and menus which are opened: their code comes when one is shown first, or once the page
 * has been quiet for a while, so that they are there without a connection too. Their names are left out of the imports that
 * are written by themselves (`vuetify.moduleOptions` in `nuxt.config.ts`).
 */
const CONTROLS: Readonly<Record<string, () => Promise<Component>>> = {
  VSelect: async () => (await import('vuetify/components/VSelect')).VSelect,
  VTextarea: async () => (await import('vuetify/components/VTextarea')).VTextarea,
  VList: async () => (await import('vuetify/components/VList')).VList,
  VListItem: async () => (await import('vuetify/components/VList')).VListItem
}
const QUIET_MS = 5000

export default defineNuxtPlugin(({ vueApp }) => {
  for (const [name, load] of Object.entries(CONTROLS)) vueApp.component(name, defineAsyncComponent(load))
  onNuxtReady(() => {
    // Where it does not come now, it comes when it is shown.
    setTimeout(() => Object.values(CONTROLS).forEach((load) => load().catch(() => undefined)), QUIET_MS)
  })
})
