/** The ordinary user of the system as whom servers run that were started by root. */
import { spawnSync } from 'node:child_process'
import { chownSync, lstatSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

export interface SystemUser {
  name: string
  uid: number
  gid: number
}

/** In this order, as far as the system has them. */
const NAMES = ['ridgeway', 'mysql', 'nobody']

/** Undefined where one is an ordinary user already, or the system has none. */
export function ordinaryUser(): SystemUser | undefined {
  if (process.getuid?.() !== 0) return undefined
  const rows = readFileSync('/etc/passwd', 'utf8')
    .split('\n')
    .map((line) => line.split(':'))
  const found = NAMES.map((name) => rows.find((row) => row[0] === name)).find((row) => row !== undefined)
  return found && { name: found[0]!, uid: Number(found[2]), gid: Number(found[3]) }
}

/** Whether that user can read a file, or get into a folder. */
export function canReach({ uid, gid }: SystemUser, path: string): boolean {
  const how = lstatSync(path).isDirectory() ? '-x' : '-r'
  return spawnSync('/usr/bin/test', [how, path], { uid, gid }).status === 0
}

/** Gives a folder, with all in it, to that user. */
export function giveTo(user: SystemUser, path: string): void {
  const { uid, gid } = user
  chownSync(path, uid, gid)
  if (!lstatSync(path).isDirectory()) return
  for (const name of readdirSync(path)) giveTo(user, join(path, name))
}
