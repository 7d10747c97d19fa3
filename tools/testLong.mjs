/** `npm run test:long`: unit, server and browser tests with every long comparison run whole, and every way gone. */
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { checkNode, CHROMIUM, CLIENT, installDebian, installPackages, MARIADB, ROOT } from './bootstrap.mjs'

checkNode()
installPackages()
installDebian([...MARIADB, CLIENT, CHROMIUM])

const bin = (name) => join(ROOT, 'node_modules', '.bin', name)
const STEPS = [
  [bin('vitest'), ['run']],
  [process.execPath, ['--import', 'tsx', 'tools/buildOnly.ts']],
  [bin('playwright'), ['test', '--timeout=900000']]
]
for (const [command, args] of STEPS) {
  const env = { ...process.env, RIDGEWAY_LONG: '1' }
  const { status } = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', env })
  if (status !== 0) process.exit(status ?? 1)
}
