/**
 * Types of TypeScript as JSON Schema (draft 2020-12), as the compiler resolves them: what `JSON.stringify` makes of a value
 * of the type. Types with a name become components of their own, so that a type may hold itself.
 */
import ts from 'typescript'

export type Schema = Record<string, unknown>

/** Types whose values are written by a `toJSON` of their own. */
const WRITTEN: Record<string, Schema> = { Date: { type: 'string', format: 'date-time' } }
/** Types of which JSON keeps nothing. */
const LOST = new Set(['Map', 'Set', 'WeakMap', 'WeakSet', 'Promise', 'RegExp'])
const NOTHING = ts.TypeFlags.Undefined | ts.TypeFlags.Void
const ANYTHING = ts.TypeFlags.Any | ts.TypeFlags.Unknown
const PRIMITIVE = ts.TypeFlags.StringLike | ts.TypeFlags.NumberLike | ts.TypeFlags.BooleanLike

export class TypeSchemas {
  /** By name. */
  readonly components = new Map<string, Schema>()
  readonly #names = new Map<ts.Type, string>()

  constructor(readonly checker: ts.TypeChecker) {}

  /** @throws TypeError for a type that JSON does not keep. */
  schemaOf(type: ts.Type): Schema {
    const name = this.#nameOf(type)
    if (name === undefined) return this.#inline(type)
    const known = this.#names.get(type)
    if (known !== undefined) return refTo(known)
    const own = this.#freeName(name, type)
    this.#names.set(type, own)
    // Before what it holds, which may be the same again.
    this.components.set(own, {})
    this.components.set(own, { ...commentOf(this.#symbolOf(type)), ...this.#inline(type) })
    return refTo(own)
  }

  mayBeNothing(type: ts.Type): boolean {
    return partsOf(type).some((part) => part.flags & (NOTHING | ts.TypeFlags.Null))
  }

  mayBeSomething(type: ts.Type): boolean {
    return partsOf(type).some((part) => !(part.flags & (NOTHING | ts.TypeFlags.Null)))
  }

  #inline(type: ts.Type): Schema {
    if (type.flags & ANYTHING) return {}
    if (type.flags & ts.TypeFlags.Null) return { type: 'null' }
    if (type.isStringLiteral() || type.isNumberLiteral()) return { const: type.value }
    if (type.flags & ts.TypeFlags.BooleanLiteral) return { const: this.checker.typeToString(type) === 'true' }
    if (type.flags & ts.TypeFlags.Boolean) return { type: 'boolean' }
    if (type.isUnion()) return this.#union(type)
    if (type.flags & ts.TypeFlags.StringLike) return { type: 'string' }
    if (type.flags & ts.TypeFlags.NumberLike) return { type: 'number' }
    if (type.isIntersection()) {
      // A primitive with a brand is written as the primitive.
      const primitive = type.types.find((part) => part.flags & PRIMITIVE)
      return primitive ? this.schemaOf(primitive) : this.#object(type)
    }
    if (this.checker.isTupleType(type)) return this.#tuple(type as ts.TupleTypeReference)
    if (this.checker.isArrayType(type))
      return {
        type: 'array',
        items: this.schemaOf(this.checker.getTypeArguments(type as ts.TypeReference)[0]!)
      }
    if (type.flags & ts.TypeFlags.Object) return this.#object(type)
    throw new TypeError(`JSON does not keep ${this.checker.typeToString(type)}`)
  }

  #union(type: ts.UnionType): Schema {
    const parts = type.types.filter((part) => !(part.flags & NOTHING))
    const literals = parts.filter((part) => part.isStringLiteral() || part.isNumberLiteral())
    const booleans = parts.filter((part) => part.flags & ts.TypeFlags.BooleanLiteral)
    const others = parts.filter((part) => !literals.includes(part as never) && !booleans.includes(part))
    const schemas = [
      ...(literals.length > 1
        ? [{ enum: literals.map((part) => (part as ts.LiteralType).value as string | number) }]
        : literals.map((part) => this.schemaOf(part))),
      ...(booleans.length > 1 ? [{ type: 'boolean' }] : booleans.map((part) => this.schemaOf(part))),
      ...others.map((part) => this.schemaOf(part))
    ]
    return schemas.length === 1 ? schemas[0]! : { anyOf: schemas }
  }

  #tuple(type: ts.TupleTypeReference): Schema {
    const parts = this.checker.getTypeArguments(type)
    const { elementFlags } = type.target
    const rest = elementFlags.findIndex((flag) => flag & ts.ElementFlags.Variable)
    const first = rest === -1 ? parts : parts.slice(0, rest)
    return {
      type: 'array',
      ...(first.length && { prefixItems: first.map((part) => this.schemaOf(part)) }),
      minItems: elementFlags.filter((flag) => flag & ts.ElementFlags.Required).length,
      ...(rest === -1 ? { maxItems: parts.length } : { items: this.schemaOf(parts[rest]!) })
    }
  }

  #object(type: ts.Type): Schema {
    const name = type.symbol?.name
    const isOfLibrary = name !== undefined && this.#isOfLibrary(type.symbol)
    if (isOfLibrary && WRITTEN[name]) return WRITTEN[name]
    if (isOfLibrary && LOST.has(name))
      throw new TypeError(`JSON does not keep ${this.checker.typeToString(type)}`)
    const properties: Record<string, Schema> = {}
    const required: string[] = []
    for (const property of this.checker.getPropertiesOfType(type)) {
      // Symbols of brands, and functions, are not written.
      if (property.name.startsWith('__@')) continue
      const of = this.checker.getTypeOfSymbol(property)
      if (of.getCallSignatures().length) continue
      if (partsOf(of).every((part) => part.flags & NOTHING)) continue
      properties[property.name] = { ...this.schemaOf(of), ...commentOf(property) }
      const mayMiss = partsOf(of).some((part) => part.flags & NOTHING)
      if (!mayMiss && !(property.flags & ts.SymbolFlags.Optional)) required.push(property.name)
    }
    const [index] = this.checker.getIndexInfosOfType(type)
    return {
      type: 'object',
      ...(Object.keys(properties).length && { properties }),
      ...(required.length && { required }),
      ...(index && { additionalProperties: this.schemaOf(index.type) })
    }
  }

  /** Of a type that the code names, as far as it is not an instance of a generic one. */
  #nameOf(type: ts.Type): string | undefined {
    if (type.aliasSymbol && !type.aliasTypeArguments?.length && !(type.flags & PRIMITIVE))
      return isBranded(type) ? undefined : type.aliasSymbol.name
    const { symbol } = type
    if (!symbol || !(symbol.flags & ts.SymbolFlags.Interface) || this.#isOfLibrary(symbol)) return undefined
    const isGeneric = this.checker.getTypeArguments(type as ts.TypeReference).length
    return isGeneric ? undefined : symbol.name
  }

  #symbolOf(type: ts.Type): ts.Symbol | undefined {
    return type.aliasSymbol ?? type.symbol
  }

  #isOfLibrary(symbol: ts.Symbol): boolean {
    const file = symbol.declarations?.[0]?.getSourceFile().fileName ?? ''
    return file.includes('/typescript/lib/') || file.includes('/@types/node/')
  }

  /** Two types of one name are told apart by the folder of the later one. */
  #freeName(name: string, type: ts.Type): string {
    if (!this.components.has(name)) return name
    const file = this.#symbolOf(type)?.declarations?.[0]?.getSourceFile().fileName ?? ''
    const folder = file.split('/').at(-2) ?? ''
    const longer = folder.charAt(0).toUpperCase() + folder.slice(1) + name
    if (!this.components.has(longer)) return longer
    const numbers = Array.from({ length: 100 }, (_, i) => `${longer}${i + 2}`)
    return numbers.find((one) => !this.components.has(one))!
  }
}

const refTo = (name: string): Schema => ({ $ref: `#/components/schemas/${name}` })
const partsOf = (type: ts.Type): readonly ts.Type[] => (type.isUnion() ? type.types : [type])
const isBranded = (type: ts.Type): boolean =>
  type.isIntersection() && type.types.some((part) => part.flags & PRIMITIVE)

/** The words written beside something; those at the head of a file are of the file. */
function commentOf(symbol: ts.Symbol | undefined): { description?: string } {
  const declaration = symbol?.declarations?.[0]
  if (!declaration) return {}
  const all = ts.getJSDocCommentsAndTags(declaration).filter(ts.isJSDoc)
  const [first] = declaration.getSourceFile().statements
  const own = declaration.pos === first?.pos ? all.slice(1) : all
  const words = own.map(({ comment }) => ts.getTextOfJSDocComment(comment) ?? '').join(' ')
  return words ? { description: words.replace(/\s+/g, ' ') } : {}
}
