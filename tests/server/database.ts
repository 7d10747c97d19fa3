/** One throw-away MariaDB for the run, with the demo loaded once; each test file gets a database of its own on it. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { startMariadb } from '../../tools/mariadb'
import { prepareDatabase } from '../../tools/site'
import { everybodyAgrees } from '../agreed'

declare module 'vitest' {
  interface ProvidedContext {
    server: string
  }
}

export default async function setup(project: TestProject) {
  const folder = mkdtempSync(join(tmpdir(), 'ridgeway-test-'))
  const server = await startMariadb(folder, { forTests: true })
  const url = await server.database('seed')
  await prepareDatabase(url, () => undefined, { demo: true })
  await everybodyAgrees(url)
  project.provide('server', url.slice(0, url.lastIndexOf('/')))
  return async () => {
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
