/** The theme is a style sheet written by the page itself: it carries the nonce that the policy of this answer asks for. */
export default defineNuxtPlugin({
  enforce: 'pre',
  setup(nuxt) {
    const nonce = document.querySelector<HTMLElement>('script[nonce]')?.nonce
    nuxt.hook('vuetify:before-create', ({ vuetifyOptions: { theme } }) => {
      if (nonce && theme) theme.cspNonce = nonce
    })
  }
})
