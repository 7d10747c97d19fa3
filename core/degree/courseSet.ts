/**
 * The course-set language: text -> tokens -> tree -> predicate over courses.
 *
 *     set   := part (('or' | ',') part)*
 *     part  := item (('and' | 'without') item)*
 *     item  := '(' set ')' | SUBJECT NUMBER ['-' NUMBER | '+'] | SUBJECT '*'
 *            | 'category' WORD | 'level' NUMBER '+' | 'undergraduate' | 'graduate' | 'any'
 *            | 'list' WORD | 'campus' WORD | 'mode' WORD
 *
 * After a comma a bare number repeats the subject before it: `ENVI 101, 150`. A range holds numbers with the letter of
 * its ends (`F20-F29`), or those without; `10-12` holds `10.101` and `12.5`. `without` binds like
 * `and`, left to right. `list` names a set kept elsewhere. `campus` and `mode` ask about the section: a
 * course of which no section is picked yet could still be in any, or in those where it is usually held; one
 * of which nothing is known is in none.
 */
import {
  letterOf,
  numberOf,
  placeOfNumber,
  readCourseNumber,
  subjectOf,
  type Course,
  type CourseNumber
} from '../catalog'
import { maybeCourseCode, type CourseCode } from '../ids'
import { Reader, RuleError, type Token } from '../rules'

type SetTree =
  | { kind: 'any' }
  | { kind: 'course'; code: CourseCode }
  | { kind: 'subject'; subject: string }
  | { kind: 'range'; subject: string; letter: string; from: number; to: number }
  | { kind: 'category'; category: string }
  | { kind: 'level'; from: number }
  | { kind: 'study'; level: 'undergraduate' | 'graduate' }
  | { kind: 'campus' | 'mode'; value: string }
  | { kind: 'or'; of: readonly SetTree[] }
  | { kind: 'narrowed'; first: SetTree; by: readonly Narrowing[] }

/** What is left of a set: what another one has too, or does not have. */
interface Narrowing {
  without: boolean
  set: SetTree
}

/** Where and how a section is held; null where that is not known, absent while no section is picked. */
export interface HeldAs {
  campus?: string | null
  /** While no section is picked: the campuses at which the course is usually held. */
  campuses?: readonly string[] | undefined
  mode?: string | null
  /** The categories it counts in; null or absent where they are those of the course. */
  categories?: readonly string[] | null
}

/** Named course sets, by name. */
export type CourseLists = ReadonlyMap<string, string>

const MODES = ['inperson', 'onlinehours', 'online', 'mixed'] as const
const DEPTH_MOST = 20

export interface CourseSet {
  readonly text: string
  /** `as` is how the course is or was taken; without it, whether it could be. */
  has(course: Course, as?: HeldAs): boolean
  /** The same, where what is not known yet does not count. */
  surely(course: Course, as?: HeldAs): boolean
  /** The courses named one by one, when the set is nothing but such a list. */
  readonly listed: readonly CourseCode[] | undefined
  /** Every course it names one by one. */
  readonly named: readonly CourseCode[]
}

/**
 * @throws RuleError with the place of the fault; a range that can hold nothing, an unknown list and lists
 * that contain each other are some.
 */
export function parseCourseSet(text: string, lists: CourseLists = new Map()): CourseSet {
  const tree = treeOf(text, { lists, inside: [] })
  const has = compile(tree, false)
  return {
    text,
    has: asksAboutSection(tree) ? has : onceEach(has),
    surely: compile(tree, true),
    listed: listOf(tree),
    named: namedIn(tree)
  }
}

function asksAboutSection(tree: SetTree): boolean {
  return tree.kind === 'campus' || tree.kind === 'mode' || partsOf(tree).some(asksAboutSection)
}

/** The sets that a set is made of. */
function partsOf(tree: SetTree): readonly SetTree[] {
  if (tree.kind === 'or') return tree.of
  return tree.kind === 'narrowed' ? [tree.first, ...tree.by.map(({ set }) => set)] : []
}

/** Audits ask the same of the same courses over and over. A section with categories of its own is asked for itself. */
function onceEach(has: CourseSet['has']): CourseSet['has'] {
  const known = new WeakMap<Course, boolean>()
  return (course, as) => {
    if (as?.categories) return has(course, as)
    const before = known.get(course)
    if (before !== undefined) return before
    const is = has(course)
    known.set(course, is)
    return is
  }
}

interface Scope {
  lists: CourseLists
  /** The lists that are being read. */
  inside: readonly string[]
}

function treeOf(text: string, scope: Scope): SetTree {
  const reader = new Reader(text)
  const tree = union(reader, scope, 0)
  if (reader.next.kind !== 'end') reader.fail('"or", "and", "without" or the end')
  return tree
}

function union(reader: Reader, scope: Scope, depth: number): SetTree {
  if (depth > DEPTH_MOST) reader.fail(`brackets no deeper than ${DEPTH_MOST}`)
  const first = narrowed(reader, scope, depth)
  const of = [first]
  let subject = first.kind === 'course' ? subjectOf(first.code) : undefined
  while (reader.accept('or') || reader.accept(',')) {
    if (subject && reader.next.kind === 'number') {
      of.push({ kind: 'course', code: codeOf(reader, subject, reader.take()) })
      continue
    }
    const part = narrowed(reader, scope, depth)
    subject = part.kind === 'course' ? subjectOf(part.code) : undefined
    of.push(part)
  }
  return of.length === 1 ? first : { kind: 'or', of }
}

function narrowed(reader: Reader, scope: Scope, depth: number): SetTree {
  const first = item(reader, scope, depth)
  const by: Narrowing[] = []
  for (;;) {
    const word = reader.accept('and') ? 'and' : reader.accept('without') ? 'without' : undefined
    if (!word) return by.length ? { kind: 'narrowed', first, by } : first
    by.push({ without: word === 'without', set: item(reader, scope, depth) })
  }
}

function item(reader: Reader, scope: Scope, depth: number): SetTree {
  if (reader.accept('(')) {
    const inner = union(reader, scope, depth + 1)
    reader.expect(')')
    return inner
  }
  const word = reader.word('a course, a subject or a condition')
  switch (word.text.toLowerCase()) {
    case 'any':
      return { kind: 'any' }
    case 'undergraduate':
    case 'graduate':
      return { kind: 'study', level: word.text.toLowerCase() as 'undergraduate' | 'graduate' }
    case 'category':
      return { kind: 'category', category: reader.word('the name of a category').text.toLowerCase() }
    case 'list':
      return listed(reader, scope)
    case 'campus':
      return { kind: 'campus', value: reader.word('the code of a campus').text.toUpperCase() }
    case 'mode':
      return { kind: 'mode', value: modeOf(reader) }
    case 'level': {
      const level = reader.number('a level such as 300')
      const from = Number(level.text)
      if (!(from >= 100 && from % 100 === 0))
        throw new RuleError(
          `"${level.text}" is not a level: levels are 100, 200 and so on`,
          reader.rule,
          level.at
        )
      reader.expect('+')
      return { kind: 'level', from }
    }
  }
  const subject = word.text.toUpperCase()
  if (!/^[A-Z]{2,5}$/.test(subject))
    throw new RuleError(`"${word.text}" is not a subject of two to five letters`, reader.rule, word.at)
  if (reader.accept('*')) return { kind: 'subject', subject }
  const number = reader.number('a course number')
  const first = numberIn(reader, subject, number)
  const { letter } = first
  const from = placeOfNumber(first)
  if (reader.accept('+')) return { kind: 'range', subject, letter, from, to: Infinity }
  if (!reader.accept('-')) return { kind: 'course', code: codeOf(reader, subject, number) }
  const end = reader.number('the last number of the range')
  const last = numberIn(reader, subject, end)
  // Without a part after the point it is the last of all that begin with it.
  const to = placeOfNumber(last.second === undefined ? { ...last, second: 999 } : last)
  if (last.letter !== letter || to < from)
    throw new RuleError(`the range ${number.text}-${end.text} is empty`, reader.rule, number.at)
  return { kind: 'range', subject, letter, from, to }
}

/** A number as the end of a range. */
function numberIn(reader: Reader, subject: string, number: Token): CourseNumber {
  codeOf(reader, subject, number)
  return readCourseNumber(number.text)
}

function codeOf(reader: Reader, subject: string, number: Token): CourseCode {
  const code = maybeCourseCode(`${subject} ${number.text}`)
  if (!code) throw new RuleError(`"${number.text}" is not a course number`, reader.rule, number.at)
  return code
}

function listed(reader: Reader, { lists, inside }: Scope): SetTree {
  const { text, at } = reader.word('the name of a list')
  const name = text.toLowerCase()
  const set = lists.get(name)
  if (set === undefined) throw new RuleError(`there is no list "${name}"`, reader.rule, at)
  if (inside.includes(name)) throw new RuleError(`the list "${name}" contains itself`, reader.rule, at)
  if (inside.length > DEPTH_MOST)
    throw new RuleError(`lists are nested no deeper than ${DEPTH_MOST}`, reader.rule, at)
  return treeOf(set, { lists, inside: [...inside, name] })
}

function modeOf(reader: Reader): string {
  const { text, at } = reader.word('a mode')
  const mode = text.toLowerCase().replaceAll('-', '')
  if (!MODES.some((one) => one === mode))
    throw new RuleError(`"${text}" is not one of in-person, online-hours, online, mixed`, reader.rule, at)
  return mode
}

/** With `sure`, what is not known yet does not count; without, it could be. */
function compile(tree: SetTree, sure: boolean): (course: Course, as?: HeldAs) => boolean {
  switch (tree.kind) {
    case 'any':
      return () => true
    case 'course':
      return (c) => c.code === tree.code || c.equivalents.includes(tree.code)
    case 'subject':
      return (c) => subjectOf(c.code) === tree.subject
    case 'range':
      return (c) => {
        if (subjectOf(c.code) !== tree.subject || letterOf(c.code) !== tree.letter) return false
        const number = numberOf(c.code)
        return number >= tree.from && number <= tree.to
      }
    case 'category':
      return (c, as) => (as?.categories ?? c.categories).includes(tree.category)
    case 'level':
      return (c) => c.yearLevel * 100 >= tree.from
    case 'study':
      return (c) => c.level === tree.level
    case 'campus':
      return (_, as) => {
        if (as?.campus !== undefined) return as.campus?.toUpperCase() === tree.value
        if (!as?.campuses?.length) return !sure
        const isThere = (campus: string) => campus.toUpperCase() === tree.value
        return sure ? as.campuses.every(isThere) : as.campuses.some(isThere)
      }
    case 'mode':
      return (_, as) => (as?.mode === undefined ? !sure : as.mode?.toLowerCase() === tree.value)
    case 'or':
      return compileUnion(tree.of, sure)
    case 'narrowed': {
      const first = compile(tree.first, sure)
      const by = tree.by.map(({ without, set }) => ({ without, has: compile(set, without ? !sure : sure) }))
      return (c, as) => first(c, as) && by.every(({ without, has }) => has(c, as) !== without)
    }
  }
}

/** Courses that are named one by one are looked up; whatever else there is, is asked. */
function compileUnion(of: readonly SetTree[], sure: boolean): (course: Course, as?: HeldAs) => boolean {
  const named = new Set(of.flatMap((part) => (part.kind === 'course' ? [part.code] : [])))
  const others = of.flatMap((part) => (part.kind === 'course' ? [] : [compile(part, sure)]))
  return (c, as) =>
    named.has(c.code) ||
    (named.size > 0 && c.equivalents.some((code) => named.has(code))) ||
    others.some((has) => has(c, as))
}

function namedIn(tree: SetTree): CourseCode[] {
  return tree.kind === 'course' ? [tree.code] : partsOf(tree).flatMap(namedIn)
}

function listOf(tree: SetTree): CourseCode[] | undefined {
  if (tree.kind === 'course') return [tree.code]
  if (tree.kind !== 'or') return undefined
  const parts = tree.of.map(listOf)
  return parts.every((part) => part !== undefined) ? parts.flat() : undefined
}
