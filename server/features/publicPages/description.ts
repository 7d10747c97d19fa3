/** The interface for other programs, as people read it: written out of its description (OpenAPI 3.1). */
import { h, type VNode } from 'vue'
import type { Database } from '#server/db/connect'
import { frameOf, notThere, publicData } from './data'
import { choices, type PageParts } from './parts'

/** JSON Schema, as far as the description makes use of it. */
export interface Schema {
  $ref?: string
  const?: unknown
  enum?: unknown[]
  anyOf?: Schema[]
  oneOf?: Schema[]
  allOf?: Schema[]
  type?: string | string[]
  items?: Schema
  prefixItems?: Schema[]
  properties?: Record<string, Schema>
  required?: string[]
  additionalProperties?: boolean | Schema
  description?: string
}
interface Content {
  content?: Record<string, { schema: Schema }>
}
interface Operation {
  operationId: string
  tags: string[]
  summary: string
  description?: string
  /** Any of these lets somebody ask. */
  security: { session?: []; token?: string[] }[]
  'x-open'?: string
  'x-roles'?: string[]
  'x-relations'?: string[]
  parameters?: { name: string; in: string; required: boolean; schema: Schema }[]
  requestBody?: Content
  responses: Record<string, Content & { description: string }>
}
interface Description {
  tags: { name: string }[]
  paths: Record<string, Record<string, Operation>>
  components: { schemas: Record<string, Schema> }
}

/** The description, as it ships: some hundred kilobytes that only its readers need. */
export const theDescription = async (): Promise<Description> =>
  (await import('../../../docs/openapi.json')).default as unknown as Description

const ROOT = '/public/interface'
const areaOf = (name: string) => name.replace(/-/g, ' ')

export async function interfacePage(db: Database): Promise<PageParts> {
  const described = await theDescription()
  const body = [
    h('p', [
      'What the screens of Ridgeway ask, other programs may ask as well: as JSON, in the same words, with the same checks. ',
      h('a', { href: '/public/openapi.json' }, 'The description (OpenAPI 3.1)'),
      ' is made from the code that checks and answers.'
    ]),
    h('p', [
      'Whoever asks signs in by POST /api/session and sends the cookie along. A change of a student’s record that carries an ' +
        'Idempotency-Key is made once, however often it arrives. ',
      'What is refused is answered with a ',
      h('a', { href: `${ROOT}/types#Problem` }, 'Problem'),
      ': a code, a sentence, and the fields it is about.'
    ]),
    ...described.tags.map(({ name }) =>
      h('section', [
        h('h2', h('a', { href: `${ROOT}/${name}` }, areaOf(name))),
        h('ul', operationsOf(described, name).map(line))
      ])
    )
  ]
  return { ...frameOf(await publicData(db)), title: 'Interface for programs', beside: typesLink, body }
}

export async function interfaceAreaPage(db: Database, area: string): Promise<PageParts> {
  const described = await theDescription()
  if (!described.tags.some(({ name }) => name === area))
    throw notThere(`The interface has no part “${area}”.`)
  const areas = described.tags.map(({ name }) => ({
    to: `${ROOT}/${name}`,
    title: areaOf(name),
    isHere: name === area
  }))
  const body = [choices('Parts of the interface', areas), ...operationsOf(described, area).map(whole)]
  return { ...frameOf(await publicData(db)), title: `Interface: ${areaOf(area)}`, beside: typesLink, body }
}

export async function interfaceTypesPage(db: Database): Promise<PageParts> {
  const { schemas } = (await theDescription()).components
  const body = Object.entries(schemas).map(([name, schema]) =>
    h('section', { id: name }, [
      h('h2', name),
      schema.description ? h('p', schema.description) : '',
      code(`Type ${name}`, schema)
    ])
  )
  const beside = h('a', { href: ROOT }, 'All that can be asked')
  return { ...frameOf(await publicData(db)), title: 'Interface: types', beside, body }
}

const typesLink = h('a', { href: `${ROOT}/types` }, 'Types')

interface Asked {
  method: string
  path: string
  operation: Operation
}

const operationsOf = ({ paths }: Description, area: string): Asked[] =>
  Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods)
      .filter(([, operation]) => operation.tags[0] === area)
      .map(([method, operation]) => ({ method: method.toUpperCase(), path, operation }))
  )

const line = ({ method, path, operation }: Asked): VNode =>
  h('li', [
    h('a', { href: `${ROOT}/${operation.tags[0]}#${operation.operationId}` }, h('code', `${method} ${path}`)),
    ` ${operation.summary}`
  ])

function whole({ method, path, operation }: Asked): VNode {
  const { parameters = [], requestBody, responses } = operation
  return h('section', { id: operation.operationId, class: 'asked' }, [
    h('h2', h('code', `${method} ${path}`)),
    h('p', operation.description ?? `${operation.summary}.`),
    h('p', { class: 'quiet' }, whoOf(operation)),
    ...parameters.flatMap(({ name, in: where, required, schema }) => [
      h('p', [
        h('code', name),
        ` in the ${PLACE_WORDS[where] ?? where}${required ? '' : ', where wanted'}: `,
        h('code', typeText(schema))
      ])
    ]),
    ...bodyOf('Asked with', requestBody),
    ...Object.entries(responses).flatMap(([status, answer]) => {
      if (status === 'default') return []
      const told = `Answers ${status}`
      return answer.content ? bodyOf(told, answer) : [h('h3', told), h('p', answer.description)]
    })
  ])
}

const PLACE_WORDS: Record<string, string> = { path: 'address' }

const bodyOf = (title: string, asked: Content | undefined): VNode[] =>
  Object.entries(asked?.content ?? {}).flatMap(([type, { schema }]) => [
    h('h3', type === 'application/json' ? title : `${title}: ${type}`),
    code(title, schema)
  ])

const code = (label: string, schema: Schema): VNode =>
  h('pre', { tabindex: 0, role: 'region', 'aria-label': label }, h('code', typeText(schema)))

function whoOf(operation: Operation): string {
  if (operation['x-open']) return `For anybody: ${operation['x-open']}.`
  const scopes = operation.security.flatMap((one) => one.token ?? [])
  const token = scopes.length ? ` Or with a token for ${scopes.join(' or ')}.` : ''
  return operation['x-roles']
    ? `For who is signed in as: ${operation['x-roles'].join(', ')}.${token}`
    : `For who is to the student: ${operation['x-relations']!.join(', ')}.${token}`
}

type Text = (string | VNode)[]

/** A schema as a type is written down, with its names as links. */
function typeText(schema: Schema, indent = ''): Text {
  const { $ref: ref } = schema
  if (ref) {
    const name = ref.split('/').at(-1)!
    return [h('a', { href: `${ROOT}/types#${name}` }, name)]
  }
  if ('const' in schema) return [JSON.stringify(schema.const)]
  if (schema.enum) return [schema.enum.map((one) => JSON.stringify(one)).join(' | ')]
  const either = schema.anyOf ?? schema.oneOf
  if (either)
    return joined(
      either.map((one) => typeText(one, indent)),
      ' | '
    )
  if (schema.allOf)
    return joined(
      schema.allOf.map((one) => typeText(one, indent)),
      ' & '
    )
  if (schema.prefixItems)
    return [
      '[',
      ...joined(
        schema.prefixItems.map((one) => typeText(one, indent)),
        ', '
      ),
      ']'
    ]
  if (schema.items) return listText(schema.items, indent)
  if (schema.type === 'object') return objectText(schema, indent)
  return [schema.type ? [schema.type].flat().join(' | ') : 'anything']
}

function listText(items: Schema, indent: string): Text {
  const isSeveral = items.enum ?? items.anyOf ?? items.oneOf
  const inner = typeText(items, indent)
  return isSeveral ? ['(', ...inner, ')[]'] : [...inner, '[]']
}

function objectText(schema: Schema, indent: string): Text {
  const { properties = {}, required = [], additionalProperties: others } = schema
  const deeper = `${indent}  `
  const lines = Object.entries(properties).map(([name, one]): Text => [
    deeper,
    name,
    required.includes(name) ? ': ' : '?: ',
    ...typeText(one, deeper),
    ...(one.description && !one.$ref ? [h('i', `  ${one.description}`)] : []),
    '\n'
  ])
  if (typeof others === 'object') lines.push([deeper, '[any]: ', ...typeText(others, deeper), '\n'])
  return lines.length ? ['{\n', ...lines.flat(), indent, '}'] : ['{}']
}

const joined = (parts: Text[], between: string): Text =>
  parts.flatMap((part, i) => (i ? [between, ...part] : part))
