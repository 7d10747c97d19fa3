/** One throw-away MariaDB for the run; each test file gets a database and a server of its own on it. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startMariadb } from '../../tools/mariadb'

export default async function setup() {
  const folder = mkdtempSync(join(tmpdir(), 'ridgeway-e2e-'))
  const server = await startMariadb(folder)
  const url = await server.database('seed')
  process.env.RIDGEWAY_TEST_SERVER = url.slice(0, url.lastIndexOf('/'))
  return async () => {
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
