import { Validator } from '@seriousme/openapi-schema-validator'
import { Ajv2020 } from 'ajv/dist/2020.js'
import ts from 'typescript'
import { describe, expect, it } from 'vitest'
import { ACCESS } from '#server/http/access'
import { TypeSchemas, type Schema } from '../../tools/openapi/typeSchemas'
import { described, faultOf } from '../e2e/described'

const options: ts.CompilerOptions = { strict: true, target: ts.ScriptTarget.ES2022, lib: ['lib.es2022.d.ts'] }
const host = ts.createCompilerHost(options)
const ofLibrary = new Map<string, ts.SourceFile | undefined>()

/** The schema of the type `Told` of a text, with the components it needs. */
function schemaOf(text: string): { schema: Schema; components: Record<string, Schema> } {
  const own = ts.createSourceFile('told.ts', text, ts.ScriptTarget.ES2022)
  const program = ts.createProgram(['told.ts'], options, {
    ...host,
    getSourceFile: (name, version) => {
      if (name === 'told.ts') return own
      if (!ofLibrary.has(name)) ofLibrary.set(name, host.getSourceFile(name, version))
      return ofLibrary.get(name)
    }
  })
  const checker = program.getTypeChecker()
  const module = checker.getSymbolAtLocation(own)!
  const told = checker.getExportsOfModule(module).find((one) => one.name === 'Told')!
  const schemas = new TypeSchemas(checker)
  const schema = schemas.schemaOf(checker.getDeclaredTypeOfSymbol(told))
  return { schema, components: Object.fromEntries(schemas.components) }
}

/** Whether a value is one that the schema of the text allows, by Ajv. */
function allows(text: string, value: unknown): boolean {
  const { schema, components } = schemaOf(text)
  return new Ajv2020({ strict: false, validateFormats: false }).validate(
    { ...schema, components: { schemas: components } },
    value
  )
}

describe('a type as JSON Schema', () => {
  it.each<[string, unknown, boolean]>([
    ['export type Told = { a: string; b?: number }', { a: 'x' }, true],
    ['export type Told = { a: string; b?: number }', { a: 'x', b: 'y' }, false],
    ['export type Told = { a: string | undefined }', {}, true],
    ['export type Told = { a: string | null }', {}, false],
    ['export type Told = { a: string | null }', { a: null }, true],
    ["export type Told = 'one' | 'two'", 'two', true],
    ["export type Told = 'one' | 'two'", 'three', false],
    ['export type Told = 1 | 2 | boolean', false, true],
    ['export type Told = 1 | 2 | boolean', 3, false],
    ['export type Told = readonly [string, number?]', ['x'], true],
    ['export type Told = readonly [string, number?]', ['x', 1, 2], false],
    ['export type Told = readonly [string, ...number[]]', ['x', 1, 2], true],
    ['export type Told = readonly [string, ...number[]]', ['x', 'y'], false],
    ['export type Told = Record<string, Date>', { a: '2027-04-09T13:40:00Z' }, true],
    ['export type Told = Record<string, Date>', { a: 5 }, false],
    ['declare const b: unique symbol; export type Told = string & { [b]: 1 }', 'x', true],
    ['declare const b: unique symbol; export type Told = string & { [b]: 1 }', {}, false],
    ['export type Told = `${string} ${number}`', 'ENVI 310', true],
    ["export type Told = { is: 'a'; n: number } | { is: 'b' }", { is: 'b' }, true],
    ["export type Told = { is: 'a'; n: number } | { is: 'b' }", { is: 'a' }, false],
    ['export interface Told { inner: Told[] }', { inner: [{ inner: [] }] }, true],
    ['export interface Told { inner: Told[] }', { inner: [{}] }, false],
    ["interface A { n: 1 } export type Told = Omit<A, 'n'> & { m: 2 }", { m: 2 }, true],
    ["interface A { n: 1 } export type Told = Omit<A, 'n'> & { m: 2 }", {}, false],
    ['export type Told = { f(): void; a: 1 }', { a: 1 }, true]
  ])('%s: %j is %s', (text, value, isAllowed) => {
    expect(allows(text, value)).toBe(isAllowed)
  })

  it('is refused where JSON would keep nothing of it', () => {
    expect(() => schemaOf('export type Told = { seats: Map<string, number> }')).toThrow('Map<string, number>')
  })

  it('tells two types of one name apart, and takes the words written beside them along', () => {
    const { schema, components } = schemaOf(
      `namespace one { export interface Seat { a: 1 } }
       namespace two {
         /** Kept. */
         export interface Seat { b: 2 }
       }
       export interface Told { one: one.Seat; two: two.Seat }`
    )
    expect(schema).toEqual({ $ref: '#/components/schemas/Told' })
    expect(Object.values(components).map((one) => Object.keys((one.properties ?? {}) as object))).toEqual([
      ['one', 'two'],
      ['a'],
      ['b']
    ])
    expect(Object.values(components)[2]).toMatchObject({ description: 'Kept.' })
  })
})

/** OpenAPI Specification 3.1, by the JSON Schema that the OpenAPI Initiative publishes for it. */
describe('the description of the interface', () => {
  it('is one, by the schema of its standard', async () => {
    const validator = new Validator()
    const read = await validator.validate(structuredClone(described) as unknown as Record<string, unknown>)
    expect(read.errors).toBeUndefined()
    expect(read.valid).toBe(true)
    expect(validator.version).toBe('3.1')
  })

  it('has every endpoint that the table of access has, each with a sentence and a name of its own', () => {
    const found = Object.entries(described.paths).flatMap(([path, methods]) =>
      Object.entries(methods).map(([method, operation]) => ({
        line: `${method.toUpperCase()} ${path.replace(/\{(\w+)\}/g, ':$1')}`,
        operation: operation as unknown as { operationId: string; summary?: string }
      }))
    )
    const lines = Object.keys(ACCESS).filter((line) => line.includes(' /api/'))
    expect(found.map(({ line }) => line).sort()).toEqual(lines.sort())
    for (const { line, operation } of found) expect(operation.summary, line).toMatch(/\w/)
    expect(new Set(found.map(({ operation }) => operation.operationId)).size).toBe(found.length)
  })

  it.each([
    ['GET', '/api/clock', 200, { mode: 'real', now: 5 }, undefined],
    ['GET', '/api/clock', 200, { mode: 'lunar', now: 5 }, '/mode'],
    ['GET', '/api/clock', 200, { mode: 'real' }, "'now'"],
    ['GET', '/api/clock', 200, { mode: 'real', now: 5, secret: 1 }, 'secret'],
    ['GET', '/api/terms/due', 200, { a: 1 }, 'array'],
    ['GET', '/api/clock', 403, { code: 'x', message: 'y' }, undefined],
    ['GET', '/api/clock', 403, { code: 'x' }, "'message'"],
    ['GET', '/api/clock', 201, {}, 'status']
  ])('%s %s %i %j: %s', (method, path, status, answer, fault) => {
    const told = faultOf(method, path, status, JSON.stringify(answer))
    if (fault === undefined) expect(told).toBeUndefined()
    else expect(told).toContain(fault)
  })
})
