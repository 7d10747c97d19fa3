import { defineVuetifyConfiguration } from 'vuetify-nuxt-module/custom-configuration'
import { themes } from './app/theme/tokens'

export default defineVuetifyConfiguration({
  theme: { defaultTheme: 'paper', themes },
  icons: { defaultSet: 'mdi-svg', svg: { mdi: { aliases: {} } } },
  defaults: {
    VBtn: { variant: 'outlined', rounded: 'lg', ripple: false, height: 33 },
    VTextField: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VTextarea: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VSelect: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VMenu: { transition: false },
    VDialog: { transition: false },
    VTooltip: { transition: false }
  }
})
