import { defineConfig } from 'vitest/config'
export default defineConfig({
  test: {
    // Vitest leaves a core free; two cores are all there are, and the database needs little of them.
    maxWorkers: 2,
    // Files share what they import, which is half of their time: nothing of it knows which test it serves.
    isolate: false,
    pool: 'threads',
    // No measure of speed: a machine that others share stands still for many seconds at times.
    expect: { poll: { timeout: 30_000 } },
    testTimeout: 120_000,
    hookTimeout: 120_000,
    projects: [
      {
        extends: true,
        test: {
          name: 'core',
          include: ['core/**/*.test.ts', 'shared/**/*.test.ts', 'app/**/*.test.ts', 'tests/cli/**/*.test.ts']
        }
      },
      {
        extends: true,
        test: {
          name: 'server',
          include: ['tests/server/**/*.test.ts'],
          globalSetup: ['tests/server/database.ts'],
          env: { RIDGEWAY_WEBHOOKS: '127.0.0.1,localhost' }
        }
      }
    ]
  }
})
