/**
 * Whether an answer of the server is one that the published description promises, and holds nothing that it does not name.
 * Read by Ajv, the reference library for JSON Schema, from the description alone.
 */
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js'

interface Operation {
  responses: Record<string, { content?: Record<string, { schema: unknown }> }>
  requestBody?: { content: Record<string, { schema: unknown }> }
}
export interface Described {
  paths: Record<string, Record<string, Operation>>
  components: { schemas: Record<string, unknown> }
}

export const described = JSON.parse(
  readFileSync(fileURLToPath(new URL('../../docs/openapi.json', import.meta.url)), 'utf8')
) as Described

/** The same, where nothing but what is named may stand in an object. */
function closed(part: unknown): unknown {
  if (Array.isArray(part)) return part.map(closed)
  if (typeof part !== 'object' || part === null) return part
  const inner = Object.fromEntries(Object.entries(part).map(([key, value]) => [key, closed(value)]))
  return inner.type === 'object' && !('additionalProperties' in inner)
    ? { ...inner, additionalProperties: false }
    : inner
}

const ajv = new Ajv2020({ strict: false, validateFormats: false, inlineRefs: false })
ajv.addSchema({ ...(closed(described) as object), $id: 'ridgeway' })

const checks = new Map<string, ValidateFunction | undefined>()
function checkOf(pointer: string): ValidateFunction | undefined {
  if (!checks.has(pointer)) checks.set(pointer, ajv.getSchema(`ridgeway#${pointer}`))
  return checks.get(pointer)
}

const PATTERNS = Object.keys(described.paths).map((pattern) => ({
  pattern,
  form: new RegExp(`^${pattern.replace(/\{\w+\}/g, '([^/]+)')}$`),
  places: pattern.match(/\{/g)?.length ?? 0
}))
PATTERNS.sort((a, b) => a.places - b.places)

/** The pattern of the description that an address follows. */
export const patternOf = (path: string): string | undefined =>
  PATTERNS.find(({ form }) => form.test(path))?.pattern

/** What is wrong with an answer; undefined where it is as described. */
export function faultOf(method: string, path: string, status: number, text: string): string | undefined {
  const pattern = patternOf(path)
  const operation = pattern && described.paths[pattern]![method.toLowerCase()]
  if (!operation) return undefined
  const told = (what: string) => `${method} ${path} answered ${status}: ${what}`
  const known = String(status) in operation.responses ? String(status) : 'default'
  if (status < 300 && known === 'default') return told('no answer of this status is described')
  const content = operation.responses[known]!.content?.['application/json']
  if (!content) return undefined
  const escaped = pattern
    .replaceAll('~', '~0')
    .replaceAll('/', '~1')
    .replaceAll('{', '%7B')
    .replaceAll('}', '%7D')
  const pointer = `/paths/${escaped}/${method.toLowerCase()}/responses/${known}/content/application~1json/schema`
  const check = checkOf(pointer)
  if (!check) return told(`${pointer} is not there`)
  if (check(JSON.parse(text))) return undefined
  const [first] = check.errors!
  return told(`${first!.instancePath} ${first!.message} ${JSON.stringify(first!.params)}`)
}
