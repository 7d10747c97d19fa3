/** `npm run test:long`: the unit and server tests with every long comparison run whole. */
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { checkNode, installDebian, installPackages, MARIADB, ROOT } from './bootstrap.mjs'

checkNode()
installPackages()
installDebian(MARIADB)
const child = spawn(join(ROOT, 'node_modules', '.bin', 'vitest'), ['run', ...process.argv.slice(2)], {
  cwd: ROOT,
  stdio: 'inherit',
  env: { ...process.env, RIDGEWAY_LONG: '1' }
})
child.on('exit', (code) => process.exit(code ?? 1))
