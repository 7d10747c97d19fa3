import { defineConfig } from 'vitest/config'
export default defineConfig({
  test: {
    // Vitest leaves a core free; two cores are all there are, and the database needs little of them.
    maxWorkers: 2,
    // Files share what they import, which is half of their time: nothing of it knows which test it serves.
    isolate: false,
    pool: 'threads',
    projects: [
      {
        extends: true,
        test: {
          name: 'core',
          include: ['core/**/*.test.ts', 'shared/**/*.test.ts', 'app/**/*.test.ts', 'tests/cli/**/*.test.ts'],
          testTimeout: 30_000
        }
      },
      {
        extends: true,
        test: {
          name: 'server',
          include: ['tests/server/**/*.test.ts'],
          globalSetup: ['tests/server/database.ts'],
          env: { RIDGEWAY_WEBHOOKS: '127.0.0.1,localhost' },
          hookTimeout: 60_000,
          testTimeout: 30_000
        }
      }
    ]
  }
})
