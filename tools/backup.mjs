/** `npm run backup` and `npm run restore`. */
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { checkNode, CLIENT, installDebian, installPackages, MARIADB, ROOT } from './bootstrap.mjs'

checkNode()
installPackages()
installDebian([...(process.env.DATABASE_URL ? [] : MARIADB), CLIENT])
const child = spawn(
  process.execPath,
  ['--import', 'tsx', join(ROOT, 'tools', 'backup', 'command.ts'), ...process.argv.slice(2)],
  { cwd: process.env.INIT_CWD ?? process.cwd(), stdio: 'inherit' }
)
child.on('exit', (code) => process.exit(code ?? 1))
