import { defineVuetifyConfiguration } from 'vuetify-nuxt-module/custom-configuration'
import { themes } from './shared/tokens'

export default defineVuetifyConfiguration({
  theme: { defaultTheme: 'paper', themes },
  icons: { defaultSet: 'mdi-svg', svg: { mdi: { aliases: {} } } },
  // A button that reads like a link, and one that looks like what stands in it.
  aliases: { VTextBtn: 'VBtn', VBareBtn: 'VBtn' },
  defaults: {
    VTextBtn: { variant: 'text', ripple: false, class: 'text-btn' },
    VBareBtn: { variant: 'text', ripple: false, class: 'bare-btn' },
    VBtn: { variant: 'outlined', rounded: 'lg', ripple: false, height: 33 },
    VTextField: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VCheckboxBtn: { density: 'compact', inline: true, ripple: false, color: 'primary' },
    VRadio: { density: 'compact', inline: true, ripple: false, color: 'primary' },
    VFileInput: { variant: 'outlined', density: 'compact', hideDetails: 'auto', prependIcon: '' },
    VTextarea: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VSelect: {
      variant: 'outlined',
      density: 'compact',
      hideDetails: 'auto',
      menuProps: { transition: false, contentClass: 'choices' }
    },
    VAutocomplete: {
      variant: 'outlined',
      density: 'compact',
      hideDetails: 'auto',
      menuProps: { transition: false, contentClass: 'choices' }
    },
    VChip: { size: 'small', rounded: 'lg' },
    VMenu: { transition: false },
    VDialog: { transition: false },
    VTooltip: { transition: false }
  }
})
