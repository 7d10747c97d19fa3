/**
 * A program as a text that people write: YAML 1.2 of the shape of the program file, without its frame. What is wrong is
 * told at its place in the text, so that an editor can mark it.
 */
import {
  isMap,
  isScalar,
  isSeq,
  LineCounter,
  parseDocument,
  visit,
  Document,
  type Node,
  type Pair
} from 'yaml'
import type { z } from 'zod'
import type { Catalog } from '#core/catalog'
import { checkProgram, type Fault } from '#core/checking'
import type { ProgramSpec } from '#core/degree'
import { programShape } from '#shared/fileShapes'
import { programFrom, shapeFaults } from '#shared/files'
import { faultText } from '#shared/route/texts'
import { listsFor } from '#shared/catalog/context'
import { capital } from '#shared/words'
import { PROGRAM_TEXT_MOST } from './drafts'

/** A program with the programs that have to be taken along. */
export type WrittenProgram = z.infer<typeof programShape>

/** What is wrong, from a character of the text to another, half-open. */
export interface TextFault {
  from: number
  to: number
  /** From 1 on. */
  line: number
  message: string
}

export interface ReadProgramText {
  /** What is written; missing where it cannot be read. */
  written?: WrittenProgram
  /** The program ready to be compiled; missing where a rule of it cannot be read. */
  spec?: ProgramSpec
  faults: TextFault[]
}

const FIXED = ['code', 'title', 'shortTitle', 'kind', 'catalogYear'] as const
/** What the text has to be a version of: the code and the year, and the names of a program that has versions already. */
export type ExpectedProgram = Pick<ProgramSpec, 'code' | 'catalogYear'> &
  Partial<Pick<ProgramSpec, (typeof FIXED)[number]>>

export interface ProgramTextContext {
  catalog: Catalog
  lists: Parameters<typeof listsFor>[0]
  expects: ExpectedProgram
}

/** A program as text: a field a line, suggested terms a line each. */
export function programText(program: WrittenProgram): string {
  const document = new Document(program)
  const suggested = document.get('suggested')
  if (isSeq(suggested)) for (const term of suggested.items) if (isSeq(term)) term.flow = true
  return document.toString({ lineWidth: 0, flowCollectionPadding: false })
}

/** Reads a program's text against a catalog. Never throws. */
export function readProgramText(text: string, context: ProgramTextContext): ReadProgramText {
  const places = new Places(text)
  if (text.length > PROGRAM_TEXT_MOST)
    return { faults: [places.fault(0, 0, `The text is longer than ${PROGRAM_TEXT_MOST} characters.`)] }
  const broken = places.syntax()
  if (broken.length) return { faults: broken }
  const value = places.value()
  if (typeof value === 'string') return { faults: [places.fault(0, 0, value)] }
  const read = programShape.safeParse(value.read)
  if (!read.success)
    return {
      faults: shapeFaults(read.error, value.read).map(({ path, message }) =>
        places.at(path.split('/'), message)
      )
    }
  const written = read.data
  const spec = programFrom({ program: written })
  const strays = FIXED.flatMap((field) => {
    const expected = context.expects[field]
    if (expected === undefined || spec[field] === expected) return []
    return [places.at([field], `has to stay "${expected}"`)]
  })
  const found = checkProgram(spec, context.catalog, {
    lists: listsFor(context.lists, spec.catalogYear),
    scale: context.catalog.scale
  })
  const faults = [...strays, ...found.map((one) => places.ofFault(one, spec.code))]
  const compiles = found.every((one) => one.code !== 'rule' && one.code !== 'program')
  return { written, ...(compiles ? { spec } : {}), faults }
}

/** Where things stand in a text. */
class Places {
  private readonly lines = new LineCounter()
  private readonly document

  constructor(private readonly text: string) {
    this.document = parseDocument(text, { lineCounter: this.lines, prettyErrors: false })
  }

  fault(from: number, to: number, message: string): TextFault {
    // The end of the text is a place too, and nothing is after it.
    const [start, end] = [Math.min(from, this.text.length), Math.min(to, this.text.length)]
    return { from: start, to: Math.max(start, end), line: this.lines.linePos(start).line || 1, message }
  }

  /** What YAML itself refuses. */
  syntax(): TextFault[] {
    return this.document.errors.map(({ pos: [from, to], message }) =>
      this.fault(from, to, `This is not YAML: ${message.split('\n')[0]!}`)
    )
  }

  /** The plain value of the text; a sentence where it has none. References to other places of it are not read. */
  value(): { read: unknown } | string {
    try {
      return { read: this.document.toJS({ maxAliasCount: 0 }) as unknown }
    } catch {
      return 'Anchors and references cannot stand in a program.'
    }
  }

  /** A fault at a field; where the field is missing, at what it is missing in. */
  at(path: readonly string[], message: string): TextFault {
    const steps = path.filter(Boolean)
    let node: Node | null = this.document.contents
    for (const step of steps) {
      const inner = innerOf(node, step)
      if (!inner) break
      node = inner
    }
    return this.mark(node, `${steps.at(-1) ?? 'The program'} ${message}.`)
  }

  /** A fault of a rule or of the program, at the requirement that its path names. */
  ofFault(fault: Fault, code: string): TextFault {
    const said = `${capital(fault.code === 'rule' ? fault.problem : faultText(fault))}.`
    const owner = this.named(fault.path, code)
    if (!('rule' in fault) || !owner) return this.mark(owner, said)
    const rule = this.ruleIn(owner, fault.rule)
    if (!rule) return this.mark(owner, said)
    if (fault.code === 'rule') return this.within(rule, fault.at, said)
    if (fault.code !== 'unknownCourse') return this.mark(rule, said)
    const at = fault.rule.indexOf(fault.course)
    return at < 0 ? this.mark(rule, said) : this.within(rule, at, said, fault.course.length)
  }

  /** The map that a path of the check names: by its number, its title, or the last id in it. */
  private named(path: string, code: string): Node | null {
    const within = path.startsWith(`${code}/`) ? path.slice(code.length + 1) : ''
    const [first = '', ...rest] = within.split('/')
    const list = this.document.get(first)
    if (isSeq(list) && (first === 'limits' || first === 'suggested')) {
      const wanted = rest.join('/')
      const byTitle = list.items.find((one) => isMap(one) && one.get('title') === wanted)
      return (byTitle ?? list.items[Number(wanted) - 1] ?? list) as Node
    }
    if (!within) return innerOf(this.document.contents, 'credits') ?? null
    const id = path.split('/').at(-1)
    // The last of those of this id: what is used twice is so at its second place.
    let found: Node | null = null
    visit(this.document, {
      Map: (_, map) => {
        if (map.get('id') === id) found = map
      }
    })
    return found
  }

  /** The text in a map that is this rule. */
  private ruleIn(owner: Node, rule: string) {
    let found: Node | undefined
    visit(owner as never, {
      Scalar: (key, scalar) => {
        if (key === 'key' || scalar.value !== rule) return undefined
        found = scalar
        return visit.BREAK
      }
    })
    return found
  }

  private within(rule: Node, at: number, message: string, length?: number): TextFault {
    const [start, end] = rule.range!
    const source = this.text.slice(start, end)
    // Of a text that is folded or escaped, the place within it is not that of its source.
    const opened = source.indexOf((rule as { value?: unknown }).value as string)
    if (opened < 0) return this.mark(rule, message)
    const from = start + opened + at
    const word = length ?? /^[A-Za-z0-9.-]*/.exec(this.text.slice(from, end))![0].length
    return this.fault(Math.min(from, end), Math.min(from + Math.max(1, word), end), message)
  }

  /** Marks a field, of several lines the first. */
  private mark(node: Node | null | undefined, message: string): TextFault {
    const [from, to] = node?.range ?? [0, 0]
    const line = this.text.indexOf('\n', from)
    return this.fault(from, line < 0 ? to : Math.min(to, line), message)
  }
}

/** What stands in a map or a list under a name or a number; of a field that nobody knows, its name. */
function innerOf(node: Node | null, step: string): Node | undefined {
  if (isSeq(node)) return node.items[Number(step)] as Node | undefined
  if (!isMap(node)) return undefined
  const pair = (node.items as Pair<Node, Node | null>[]).find(
    ({ key }) => isScalar(key) && String(key.value) === step
  )
  return pair && (pair.value ?? pair.key)
}
