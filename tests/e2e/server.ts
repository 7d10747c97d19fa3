/** One throw-away MariaDB for the run, with the demo loaded once; each test file gets a copy and a server of its own. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startMariadb } from '../../tools/mariadb'
import { prepareDatabase } from '../../tools/site'

export default async function setup() {
  const folder = mkdtempSync(join(tmpdir(), 'ridgeway-e2e-'))
  const server = await startMariadb(folder)
  const url = await server.database('seed')
  await prepareDatabase(url, () => undefined, { demo: true })
  process.env.RIDGEWAY_TEST_SERVER = url.slice(0, url.lastIndexOf('/'))
  return async () => {
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
