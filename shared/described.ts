/**
 * Whether an answer of the server is one that the published description promises, and holds nothing that it does not name.
 * Read by Ajv, the reference library for JSON Schema, from the description alone: by tests, and by the page in development.
 */
import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js'

interface Operation {
  responses: Record<string, { content?: Record<string, { schema: unknown }> }>
  requestBody?: { content: Record<string, { schema: unknown }> }
}
export interface Described {
  paths: Record<string, Record<string, Operation>>
  components: { schemas: Record<string, unknown> }
}

/** The same, where nothing but what is named may stand in an object. */
function closed(part: unknown): unknown {
  if (Array.isArray(part)) return part.map(closed)
  if (typeof part !== 'object' || part === null) return part
  const inner = Object.fromEntries(Object.entries(part).map(([key, value]) => [key, closed(value)]))
  return inner.type === 'object' && !('additionalProperties' in inner)
    ? { ...inner, additionalProperties: false }
    : inner
}

/** Of the address of an answer, the pattern of the description that it follows; and of the answer, what is wrong with it. */
export interface AnswerCheck {
  patternOf: (path: string) => string | undefined
  /** Undefined where it is as described, or where nothing is described of it. */
  faultOf: (method: string, path: string, status: number, text: string) => string | undefined
}

/** Where a document of JSON says a thing, as RFC 6901 writes it in an address. */
const pointerTo = (...parts: string[]): string =>
  parts
    .map((part) => `/${part.replaceAll('~', '~0').replaceAll('/', '~1')}`)
    .join('')
    .replaceAll('{', '%7B')
    .replaceAll('}', '%7D')

export function answerCheck(described: Described): AnswerCheck {
  const ajv = new Ajv2020({ strict: false, validateFormats: false, inlineRefs: false })
  ajv.addSchema({ ...(closed(described) as object), $id: 'ridgeway' })

  const checks = new Map<string, ValidateFunction | undefined>()
  function checkOf(pointer: string): ValidateFunction | undefined {
    if (!checks.has(pointer)) checks.set(pointer, ajv.getSchema(`ridgeway#${pointer}`))
    return checks.get(pointer)
  }

  const patterns = Object.keys(described.paths).map((pattern) => ({
    pattern,
    form: new RegExp(`^${pattern.replace(/\{\w+\}/g, '([^/]+)')}$`),
    places: pattern.match(/\{/g)?.length ?? 0
  }))
  patterns.sort((a, b) => a.places - b.places)
  const patternOf = (path: string): string | undefined =>
    patterns.find(({ form }) => form.test(path))?.pattern

  function faultOf(method: string, path: string, status: number, text: string): string | undefined {
    const verb = method.toLowerCase()
    const pattern = patternOf(path)
    const operation = pattern && described.paths[pattern]![verb]
    if (!operation) return undefined
    const told = (what: string) => `${method} ${path} answered ${status}: ${what}`
    const known = String(status) in operation.responses ? String(status) : 'default'
    if (status < 300 && known === 'default') return told('no answer of this status is described')
    if (!operation.responses[known]!.content?.['application/json']) return undefined
    const pointer = pointerTo(
      'paths',
      pattern,
      verb,
      'responses',
      known,
      'content',
      'application/json',
      'schema'
    )
    const check = checkOf(pointer)
    if (!check) return told(`${pointer} is not there`)
    if (check(JSON.parse(text))) return undefined
    const [first] = check.errors!
    return told(`${first!.instancePath} ${first!.message} ${JSON.stringify(first!.params)}`)
  }
  return { patternOf, faultOf }
}
