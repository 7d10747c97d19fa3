import prettier from 'eslint-config-prettier'
import withNuxt from './.nuxt/eslint.config.mjs'

export default withNuxt(
  {
    rules: {
      'no-console': 'off',
      'vue/multi-word-component-names': 'off',
      '@typescript-eslint/no-explicit-any': 'error',
      eqeqeq: 'error'
    }
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'setTimeout', 'fetch', 'process', 'window'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'core is deterministic' },
        { object: 'Date', property: 'now', message: 'core has no clock' }
      ]
    }
  },
  { ignores: ['.data/**', '.output/**', 'server/db/migrations/**'] },
  prettier
)
