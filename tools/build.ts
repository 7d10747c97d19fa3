/** The production build, made again only when something it is made of has changed. */
import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { PlainError } from './supervisor'

const SOURCES = [
  'app',
  'server',
  'shared',
  'core',
  'public',
  'nuxt.config.ts',
  'tools/chunks.ts',
  'vuetify.config.ts',
  'package-lock.json',
  'package.json'
]

function* files(path: string): Generator<string> {
  if (!existsSync(path)) return
  if (!statSync(path).isDirectory()) return yield path
  for (const name of readdirSync(path).sort()) yield* files(join(path, name))
}

function fingerprint(root: string): string {
  const hash = createHash('sha256')
  for (const source of SOURCES) {
    for (const file of files(join(root, source)))
      hash.update(file.slice(root.length)).update(readFileSync(file))
  }
  return hash.digest('hex')
}

export async function buildWhenNeeded(root: string): Promise<void> {
  const marker = join(root, '.output', 'fingerprint')
  const wanted = fingerprint(root)
  if (existsSync(marker) && readFileSync(marker, 'utf8') === wanted) return
  const started = Date.now()
  console.log('Building, about a minute ...')
  const code = await runHidden(root, ['build'])
  if (code !== 0) throw new PlainError('The build failed; its last lines stand above.')
  writeFileSync(marker, wanted)
  console.log(`Built in ${((Date.now() - started) / 1000).toFixed(0)} s`)
}

function runHidden(root: string, args: string[]): Promise<number> {
  return new Promise((resolve) => {
    const nuxt = join(root, 'node_modules', 'nuxt', 'bin', 'nuxt.mjs')
    const child = spawn(process.execPath, [nuxt, ...args], {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, NO_COLOR: '1' }
    })
    let output = ''
    const keep = (chunk: Buffer) => (output = (output + chunk.toString()).slice(-20_000))
    child.stdout.on('data', keep)
    child.stderr.on('data', keep)
    child.on('exit', (code) => {
      if (code !== 0) console.error(output.trim().split('\n').slice(-30).join('\n'))
      resolve(code ?? 1)
    })
  })
}
