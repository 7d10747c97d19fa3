/** The password that only whoever starts the database can read. */
import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const PASSWORD = 'database-password'

export function passwordIn(folder: string): string {
  const file = join(folder, PASSWORD)
  if (!existsSync(file)) writeFileSync(file, randomBytes(24).toString('hex'), { mode: 0o600 })
  return readFileSync(file, 'utf8')
}

/** Carried out before anybody is let in, each time it starts. */
export function onlyWith(password: string): string {
  const hosts = ["'localhost'", "'127.0.0.1'", "'::1'"]
  return [
    `delete from mysql.global_priv where User = '' or (User = 'root' and Host not in (${hosts.join()}));`,
    'flush privileges;',
    ...hosts.map((host) => `alter user if exists 'root'@${host} identified by '${password}';`),
    ''
  ].join('\n')
}
