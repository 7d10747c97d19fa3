/** One throw-away MariaDB for the run, with the demo loaded once; each test file gets a copy and a server of its own. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { FullConfig } from '@playwright/test'
import { freePort, startMariadb } from '../../tools/mariadb'
import { prepareDatabase } from '../../tools/site'
import { everybodyAgrees } from '../agreed'
import type { TestRun } from './site'

export default async function setup({ workers }: FullConfig) {
  const folder = mkdtempSync(join(tmpdir(), 'ridgeway-e2e-'))
  const server = await startMariadb(folder, { forTests: true })
  const url = await server.database('seed')
  await prepareDatabase(url, () => undefined, { demo: true })
  await everybodyAgrees(url)
  const run: TestRun = {
    server: url.slice(0, url.lastIndexOf('/')),
    ports: await Promise.all(Array.from({ length: workers }, freePort)),
    profiles: join(folder, 'browsers')
  }
  process.env.RIDGEWAY_TEST_RUN = JSON.stringify(run)
  return async () => {
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
