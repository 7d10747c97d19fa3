/** A site on a database in which nothing is yet, beside the demo's. */
import mysql from 'mysql2/promise'
import { connect, inTransaction } from '#server/db/connect'
import { migrateDatabase } from '#server/db/migrate'
import { inviteFirst } from '#server/features/accounts/staff'
import { setClock } from '#server/gateways/clock'
import { freePort } from '../../tools/mariadb'
import { startSite, type Site } from '../../tools/site'
import { ROOT, type DemoSite } from './site'

/** A spring morning. */
const NOW = Date.parse('2027-04-09T08:00:00Z')

export interface College {
  url: string
  site: DemoSite
  served: Site
}

/** With the key of its first registrar's link. */
export async function emptyCollege(site: DemoSite): Promise<College & { key: string }> {
  const url = `${site.url}_empty`
  const name = new URL(url).pathname.slice(1)
  const connection = await mysql.createConnection({ uri: site.url })
  await connection.query('drop database if exists ??', [name])
  await connection.query('create database ?? character set utf8mb4 collate utf8mb4_uca1400_ai_ci', [name])
  await connection.end()
  await migrateDatabase(url)
  const { db, close } = connect(url, { connections: 1 })
  const key = await inviteFirst(db)
  await inTransaction(db, (tx) => setClock(tx, 'standing', NOW, []))
  await close()
  const served = await startSite(ROOT, await freePort(), url)
  return { url, key: key!, served, site: { ...site, url, address: served.address } }
}

export async function clockAt(url: string, at: number): Promise<void> {
  const { db, close } = connect(url, { connections: 1 })
  await inTransaction(db, (tx) => setClock(tx, 'standing', at, []))
  await close()
}
