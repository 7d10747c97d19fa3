/**
 * Large controls that stand in forms and menus which are opened: their code comes when one is shown first. Their names are
 * left out of the imports that are written by themselves (`vuetify.moduleOptions` in `nuxt.config.ts`).
 */
export default defineNuxtPlugin(({ vueApp }) => {
  vueApp.component(
    'VSelect',
    defineAsyncComponent(async () => (await import('vuetify/components/VSelect')).VSelect)
  )
  vueApp.component(
    'VTextarea',
    defineAsyncComponent(async () => (await import('vuetify/components/VTextarea')).VTextarea)
  )
  vueApp.component(
    'VList',
    defineAsyncComponent(async () => (await import('vuetify/components/VList')).VList)
  )
  vueApp.component(
    'VListItem',
    defineAsyncComponent(async () => (await import('vuetify/components/VList')).VListItem)
  )
})
