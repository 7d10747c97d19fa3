/**
 * What has to be there before anything in TypeScript can run: the npm packages, and Debian's packages
 * when they are missing. Plain JavaScript with nothing but Node.
 */
import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)))

const PLACES = ['/usr/sbin', '/usr/bin', '/usr/local/sbin', '/usr/local/bin']

/** Ends with one clear sentence. */
export function stop(sentence) {
  console.error(sentence)
  process.exit(1)
}

export function has(command) {
  return PLACES.some((place) => existsSync(join(place, command)))
}

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19)) {
    stop(`Ridgeway needs Node.js 20.19 or later; this is ${process.versions.node}.`)
  }
}

/** Runs a command with its output hidden unless it fails. */
function quiet(what, command, args, options = {}) {
  const started = Date.now()
  process.stdout.write(`${what} ... `)
  const done = spawnSync(command, args, { cwd: ROOT, encoding: 'utf8', maxBuffer: 1 << 28, ...options })
  if (done.status !== 0) {
    console.log('failed')
    console.error(`${done.stdout ?? ''}${done.stderr ?? ''}`.trim().split('\n').slice(-15).join('\n'))
    stop(`${what} failed: ${command} ${args.join(' ')}`)
  }
  console.log(`${((Date.now() - started) / 1000).toFixed(1)} s`)
}

/** Installs the npm packages when they are not those of the lock file. */
export function installPackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex')
  const marker = join(ROOT, 'node_modules', '.ridgeway-lock')
  if (existsSync(marker) && readFileSync(marker, 'utf8') === lock) return
  quiet('Installing npm packages', 'npm', ['ci', '--no-audit', '--no-fund'])
  writeFileSync(marker, lock)
}

/** Installs Debian's packages for commands that are missing; without the right to, says how. */
export function installDebian(wanted) {
  const missing = wanted.filter(({ command }) => !has(command)).map((entry) => entry.package)
  if (!missing.length) return
  const line = `apt-get install -y ${missing.join(' ')}`
  if (process.getuid?.() !== 0 || !has('apt-get'))
    stop(`Missing on this machine: ${missing.join(', ')}. Install with: sudo ${line}`)
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  quiet('Reading the package lists', 'apt-get', ['update', '-qq'], { env })
  quiet(
    `Installing ${missing.join(', ')}`,
    'apt-get',
    ['install', '-y', '-qq', '--no-install-recommends', ...missing],
    { env }
  )
}

// The core packages of mariadb-server: the server, without a service of its own on port 3306.
export const MARIADB = [
  { command: 'mariadbd', package: 'mariadb-server-core' },
  { command: 'my_print_defaults', package: 'mariadb-client-core' }
]
/** Its programs that dump a database and take one in. */
export const CLIENT = { command: 'mariadb-dump', package: 'mariadb-client' }
export const CHROMIUM = { command: 'chromium', package: 'chromium' }
