// Of Vue's files alone: all others are read by oxlint, in a second (.oxlintrc.json).
import prettier from 'eslint-config-prettier'
import withNuxt from './.nuxt/eslint.config.mjs'

export default withNuxt(
  {
    rules: {
      'no-console': 'off',
      'vue/multi-word-component-names': 'off',
      '@typescript-eslint/no-explicit-any': 'error',
      eqeqeq: 'error',
      'vue/max-lines-per-block': ['error', { script: 160, template: 190, style: 230 }]
    }
  },
  { ignores: ['.data/**', '.output/**', 'server/db/migrations/**'] },
  prettier
)
