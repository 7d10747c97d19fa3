import { defineConfig } from 'vitest/config'
export default defineConfig({
  test: {
    projects: [
      {
        extends: true,
        test: {
          name: 'core',
          include: ['core/**/*.test.ts', 'shared/**/*.test.ts', 'tests/cli/**/*.test.ts'],
          testTimeout: 30_000
        }
      },
      {
        extends: true,
        test: {
          name: 'server',
          include: ['tests/server/**/*.test.ts'],
          globalSetup: ['tests/server/database.ts'],
          fileParallelism: false,
          hookTimeout: 60_000,
          testTimeout: 30_000
        }
      }
    ]
  }
})
