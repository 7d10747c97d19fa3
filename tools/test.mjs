/**
 * `npm test`: everything that must pass, the cheap and telling first. Ends with a line of totals.
 */
import { spawn } from 'node:child_process'
import { readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { checkNode, CHROMIUM, CLIENT, installDebian, installPackages, MARIADB, ROOT } from './bootstrap.mjs'

checkNode()
installPackages()
installDebian([...MARIADB, CLIENT, CHROMIUM])

const bin = (name) => join(ROOT, 'node_modules', '.bin', name)
/** The compiler in native code, for all that holds no Vue. */
const TSC = join(ROOT, 'node_modules', 'typescript-native', 'bin', 'tsc')
const report = (name) => join(tmpdir(), `ridgeway-${process.pid}-${name}.json`)
const vitestReport = report('vitest')
const browserReport = report('browser')

/** Each by itself, two at a time, the longest first so that the cheap ones pass beside it. */
const CHECKS = [
  ['Types of the app', bin('vue-tsc'), ['--noEmit', '-p', '.nuxt/tsconfig.app.json']],
  ['Format', bin('oxfmt'), ['--check', '.']],
  ['Lint', bin('oxlint'), ['--deny-warnings']],
  ['Lint of Vue', bin('eslint'), ['app/**/*.vue', '--max-warnings', '0']],
  [
    'Layers',
    bin('depcruise'),
    ['--config', '.dependency-cruiser.cjs', 'core', 'shared', 'server', 'app', 'demo', 'tools', 'tests']
  ],
  ['Dead code', bin('knip'), []],
  ['Description of the interface', process.execPath, ['--import', 'tsx', 'tools/openapi.ts', '--check']],
  ['Types of core', process.execPath, [TSC, '-p', 'core/tsconfig.json']],
  ['Types of tools and tests', process.execPath, [TSC, '-p', 'tsconfig.tools.json']],
  ['Types of the server', process.execPath, [TSC, '--noEmit', '-p', '.nuxt/tsconfig.server.json']]
]
const AT_ONCE = 2
/** Neither keeps both cores busy by itself. */
const TOGETHER = [
  [
    'Unit and server tests',
    bin('vitest'),
    ['run', '--reporter=default', '--reporter=json', `--outputFile.json=${vitestReport}`],
    'loud'
  ],
  ['Production build', process.execPath, ['--import', 'tsx', 'tools/buildOnly.ts']]
]
const BROWSER = ['Browser tests', bin('playwright'), ['test'], 'loud']

function step([name, command, args, loud]) {
  return new Promise((resolve) => {
    const started = Date.now()
    if (loud) console.log(`${name} ...`)
    const env = {
      ...process.env,
      RIDGEWAY_BROWSER_REPORT: browserReport,
      NO_COLOR: '1',
      FORCE_COLOR: undefined
    }
    const child = spawn(command, args, { cwd: ROOT, stdio: loud ? 'inherit' : 'pipe', env })
    let output = ''
    child.stdout?.on('data', (chunk) => (output += chunk))
    child.stderr?.on('data', (chunk) => (output += chunk))
    child.on('error', (error) => (output += error.message))
    child.on('close', (code) => {
      const seconds = ((Date.now() - started) / 1000).toFixed(1)
      console.log(`${name}: ${code === 0 ? 'ok' : 'FAILED'} (${seconds} s)`)
      if (code !== 0 && !loud) console.log(output.trim())
      resolve(code === 0)
    })
  })
}

function read(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'))
  } catch {
    return undefined
  }
}

function totals() {
  const units = read(vitestReport)
  const browser = read(browserReport)?.stats
  rmSync(vitestReport, { force: true })
  rmSync(browserReport, { force: true })
  return {
    passed: (units?.numPassedTests ?? 0) + (browser?.expected ?? 0),
    failed: (units?.numFailedTests ?? 0) + (browser?.unexpected ?? 0) + (browser?.flaky ?? 0),
    skipped: (units?.numPendingTests ?? 0) + (browser?.skipped ?? 0)
  }
}

const started = Date.now()
let failed
/** Takes one after the other until something fails, here or elsewhere. */
async function work(queue) {
  for (let entry; !failed && (entry = queue.shift());) if (!(await step(entry))) failed ??= entry[0]
}
await work([['Types of the framework', bin('nuxt'), ['prepare']]])
for (const steps of [CHECKS, TOGETHER]) {
  const queue = [...steps]
  await Promise.all(Array.from({ length: AT_ONCE }, () => work(queue)))
}
await work([BROWSER])
const sum = totals()
console.log(
  `${failed ? `Stopped at: ${failed}. ` : 'All steps passed. '}${((Date.now() - started) / 1000).toFixed(0)} s`
)
console.log(
  `${sum.passed} passed, ${sum.failed + (failed && !sum.failed ? 1 : 0)} failed${sum.skipped ? `, ${sum.skipped} skipped` : ''}`
)
process.exit(failed ? 1 : 0)
