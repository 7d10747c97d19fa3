/**
 * The interface of the server as OpenAPI 3.1: what each endpoint is asked from the Zod shapes that check it, what it
 * answers from the types that its code is checked against, who may call it from the table of access.
 */
import ts from 'typescript'
import { z } from 'zod'
import { ACCESS } from '#server/http/access'
import type { Endpoint } from '#server/http/endpoint'
import { scopesOf } from '#server/http/scopes'
import { EVENT_DATA, EVENT_WORDS, eventBody, type EventType } from '#shared/connections/events'
import { SCOPES, SCOPE_WORDS } from '#shared/connections/scopes'
import { endpointFiles, type EndpointFile } from './endpoints'
import { TypeSchemas, type Schema } from './typeSchemas'

const CONFIG = '.nuxt/tsconfig.server.json'
const PROBLEM = 'shared/responses.ts'

type Operation = Record<string, unknown>

export interface OpenApi {
  openapi: '3.1.1'
  info: { title: string; version: string; description: string }
  tags: { name: string }[]
  paths: Record<string, Record<string, Operation>>
  webhooks: Record<string, Record<string, Operation>>
  components: { schemas: Record<string, Schema>; securitySchemes: Record<string, unknown> }
}

/** How somebody says who they are. */
const SECURITY_SCHEMES: OpenApi['components']['securitySchemes'] = {
  session: {
    type: 'apiKey',
    in: 'cookie',
    name: 'ridgeway',
    description: 'Set by POST /api/session; named `__Host-ridgeway` behind https.'
  },
  token: {
    type: 'http',
    scheme: 'bearer',
    description: `Given by the registrar to a program of an office. Scopes: ${SCOPES.map(
      (one) => `\`${one}\`, ${SCOPE_WORDS[one]}`
    ).join('; ')}.`
  }
}

/** @param root folder of the project, with the types that Nuxt prepares */
export async function openApi(root: string, version: string): Promise<OpenApi> {
  const files = endpointFiles().filter(({ line }) => line.includes(' /api/'))
  const types = compiled(root, files)
  const { checker } = types
  const schemas = new TypeSchemas(checker)
  const problem = schemas.schemaOf(typeNamed(types, `${root}/${PROBLEM}`, 'Problem'))
  const paths: OpenApi['paths'] = {}
  const tags = new Set<string>()
  for (const file of files) {
    const { default: endpoint } = (await import(file.path)) as { default: Endpoint<unknown> }
    const answer = answerOf(types, file)
    const [method, pattern] = file.line.split(' ') as [string, string]
    const tag = tagOf(pattern)
    tags.add(tag)
    const path = pattern.replace(/:(\w+)/g, '{$1}')
    ;(paths[path] ??= {})[method.toLowerCase()] = {
      operationId: idOf(method, pattern),
      tags: [tag],
      ...commentOf(file),
      ...accessOf(file.line as keyof typeof ACCESS),
      ...askedOf(endpoint),
      responses: {
        ...answered(endpoint, answer, schemas),
        default: {
          description: 'Refused, with the reason.',
          content: { 'application/json': { schema: problem } }
        }
      }
    }
  }
  return {
    openapi: '3.1.1',
    info: {
      title: 'Ridgeway',
      version,
      description:
        'Plan a degree across terms, pick sections and register them. Instants are milliseconds since 1970 (UTC), ' +
        'times of day minutes since midnight on campus, ranges half open, amounts of money in cents where nothing else is said.'
    },
    tags: [...tags].sort().map((name) => ({ name })),
    paths: sorted(paths),
    webhooks: webhooks(),
    components: {
      schemas: sorted(Object.fromEntries(schemas.components)),
      securitySchemes: SECURITY_SCHEMES
    }
  }
}

interface Compiled {
  program: ts.Program
  checker: ts.TypeChecker
}

function compiled(root: string, files: readonly EndpointFile[]): Compiled {
  const { config, error } = ts.readConfigFile(`${root}/${CONFIG}`, (path) => ts.sys.readFile(path))
  if (error) throw new Error(ts.flattenDiagnosticMessageText(error.messageText, '\n'))
  const { options } = ts.parseJsonConfigFileContent(
    { ...config, files: [], include: [] },
    ts.sys,
    `${root}/.nuxt`
  )
  const program = ts.createProgram([...files.map(({ path }) => path), `${root}/${PROBLEM}`], options)
  return { program, checker: program.getTypeChecker() }
}

function exported({ program, checker }: Compiled, path: string, name: string): ts.Symbol {
  const source = program.getSourceFile(path)
  const module = source && checker.getSymbolAtLocation(source)
  const found = module && checker.getExportsOfModule(module).find((one) => one.name === name)
  if (!found) throw new Error(`${path} exports no ${name}`)
  return found
}

const typeNamed = (types: Compiled, path: string, name: string): ts.Type =>
  types.checker.getDeclaredTypeOfSymbol(exported(types, path, name))

/** What an endpoint answers: what its type says it carries. */
function answerOf(types: Compiled, { path }: EndpointFile): ts.Type {
  const { checker } = types
  const type = checker.getTypeOfSymbol(exported(types, path, 'default'))
  const answer = checker.getPropertyOfType(type, 'answers')
  if (!answer) throw new Error(`${path} does not say what it answers`)
  const says = checker.getNonNullableType(checker.getTypeOfSymbol(answer))
  const [of] = checker.getSignaturesOfType(says, ts.SignatureKind.Call)
  return of!.getReturnType()
}

/** The first words of the comment of an endpoint, and the whole. */
function commentOf({ text }: EndpointFile): { summary?: string; description?: string } {
  const [, comment] = /\/\*\*((?:(?!\*\/)[\s\S])*)\*\/\s*export default/.exec(text) ?? []
  if (!comment) return {}
  const whole = comment
    .replace(/^\s*\* ?/gm, '')
    .replace(/\s+/g, ' ')
    .trim()
  const [first] = whole.split(/(?<=\.) |; /) as [string]
  const summary = first.replace(/\.$/, '')
  return summary.length + 1 < whole.length ? { summary, description: whole } : { summary }
}

function accessOf(line: keyof typeof ACCESS): Operation {
  const access = ACCESS[line]
  if ('open' in access) return { security: [], 'x-open': access.open }
  // Any one of them lets somebody in.
  const security = [{ session: [] }, ...scopesOf(line).map((scope) => ({ token: [scope] }))]
  return 'roles' in access
    ? { security, 'x-roles': access.roles }
    : { security, 'x-relations': access.relations }
}

/** What is told to other systems, signed as the Standard Webhooks specification has it. */
function webhooks(): OpenApi['webhooks'] {
  const header = (name: string, description: string) => ({
    ...{ name, in: 'header', required: true, description },
    schema: { type: 'string' }
  })
  const parameters = [
    header('webhook-id', 'The same each time it is told: what comes twice is known by it.'),
    header('webhook-timestamp', 'Seconds since 1970 (UTC), of this try.'),
    header('webhook-signature', 'HMAC-SHA256 over `id.timestamp.body` with the secret of the webhook.')
  ]
  const types = Object.keys(EVENT_DATA) as EventType[]
  return Object.fromEntries(
    types.map((type) => [
      type,
      {
        post: {
          operationId: type.replace('.', '_'),
          summary: capital(EVENT_WORDS[type]),
          parameters,
          requestBody: {
            required: true,
            content: { 'application/json': { schema: asked(eventBody(type)) } }
          },
          responses: {
            '2XX': { description: 'It has arrived.' },
            410: { description: 'It is to be told no more: the webhook ends.' },
            default: { description: 'It has not arrived, and is told again, for days.' }
          }
        }
      }
    ])
  )
}

/** As drafted by the IETF's HTTPAPI working group. */
const KEY = {
  name: 'Idempotency-Key',
  in: 'header',
  description:
    'What is asked again with the same key is done once; 8 to 64 letters, digits, hyphens or underscores.',
  schema: { type: 'string', pattern: '^"?[A-Za-z0-9_-]{8,64}"?$' }
}

const asked = (shape: z.ZodType): Schema => {
  const { $schema: _, ...schema } = z.toJSONSchema(shape, { io: 'input', unrepresentable: 'any' }) as Schema
  return schema
}

function askedOf({ shape }: Endpoint<unknown>): Operation {
  const parameters = [
    ...parametersOf(shape.params, 'path', () => true),
    ...parametersOf(shape.query, 'query', (name, required) => required.includes(name)),
    ...(shape.key ? [{ ...KEY, required: shape.key === 'must' }] : [])
  ]
  return {
    ...(parameters.length && { parameters }),
    ...(shape.body && {
      requestBody: { required: true, content: { 'application/json': { schema: asked(shape.body) } } }
    })
  }
}

function parametersOf(
  shape: z.ZodType | undefined,
  where: 'path' | 'query',
  isRequired: (name: string, required: readonly string[]) => boolean
): Operation[] {
  if (!shape) return []
  const { properties = {}, required = [] } = asked(shape) as {
    properties?: Record<string, Schema>
    required?: string[]
  }
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    in: where,
    required: isRequired(name, required),
    schema
  }))
}

function answered({ shape }: Endpoint<unknown>, answer: ts.Type, schemas: TypeSchemas): Operation {
  if (shape.type) {
    const schema = { type: 'string' }
    return { 200: { description: 'Answered.', content: { [shape.type.split(';')[0]!]: { schema } } } }
  }
  return {
    ...(schemas.mayBeSomething(answer) && {
      200: { description: 'Answered.', content: { 'application/json': { schema: schemas.schemaOf(answer) } } }
    }),
    ...(schemas.mayBeNothing(answer) && { 204: { description: 'Done, or nothing there.' } })
  }
}

const tagOf = (pattern: string): string => pattern.split('/')[2]!

/** `GET /api/students/:id/sheet` → `getStudentsSheet`, with the places of the address after `By`. */
function idOf(method: string, pattern: string): string {
  const parts = pattern.split('/').slice(2)
  const words = parts.filter((one) => !one.startsWith(':')).flatMap((one) => one.split('-'))
  const places = parts.filter((one) => one.startsWith(':')).map((one) => capital(one.slice(1)))
  return method.toLowerCase() + words.map(capital).join('') + (places.length ? `By${places.join('And')}` : '')
}

const capital = (word: string): string => word.charAt(0).toUpperCase() + word.slice(1)
const sorted = <T>(all: Record<string, T>): Record<string, T> =>
  Object.fromEntries(Object.entries(all).sort(([a], [b]) => (a < b ? -1 : 1)))
