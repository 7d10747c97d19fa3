/**
 * `npm run openapi` writes the description of the server's interface; with `--check` it says whether that is still the
 * one of the code.
 */
import { readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { openApi } from './openapi/document'

const ROOT = fileURLToPath(new URL('..', import.meta.url)).replace(/\/$/, '')
const FILE = `${ROOT}/docs/openapi.json`

const { version } = JSON.parse(readFileSync(`${ROOT}/package.json`, 'utf8')) as { version: string }
const text = `${JSON.stringify(await openApi(ROOT, version), null, 1)}\n`
if (!process.argv.includes('--check')) writeFileSync(FILE, text)
else if (readFileSync(FILE, 'utf8') !== text) {
  console.error('docs/openapi.json is not what the endpoints say; `npm run openapi` writes it.')
  process.exitCode = 1
}
