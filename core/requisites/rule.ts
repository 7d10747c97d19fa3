/**
 * The prerequisite language: text -> tokens -> tree.
 *
 *     rule   := branch ('or' branch)*
 *     branch := leaf ('and' leaf)*
 *     leaf   := '(' rule ')' | NUMBER 'of' '(' rule (',' rule)* ')' | ['with'] COURSE ['(' GRADE ')'] | 'test' NAME '>=' NUMBER
 *             | 'average' NUMBER ['of' '(' COURSE (',' COURSE)* ')'] | 'standing' WORD | NUMBER 'credits' | 'program' CODE
 *             | 'permission'
 *
 * `with` may be taken in the same term, its grade is then still to come; any other course has to be finished before.
 */
import { COMMON_SCALE, type GradeScale } from '../grades'
import { maybeCourseCode, type CourseCode } from '../ids'
import { Reader, RuleError } from '../rules'

export const STANDINGS = ['freshman', 'sophomore', 'junior', 'senior', 'graduate'] as const
export type Standing = (typeof STANDINGS)[number]

export type RuleLeaf =
  | { kind: 'course'; course: CourseCode; leastGrade?: string; sameTerm: boolean }
  | { kind: 'test'; test: string; least: number }
  /** Of all that was graded here, or of these courses. */
  | { kind: 'average'; least: number; courses?: readonly CourseCode[] }
  | { kind: 'standing'; standing: Standing }
  | { kind: 'credits'; credits: number }
  | { kind: 'program'; program: string }
  | { kind: 'permission' }

/** All parts have to hold, any of them, or so many: of `some` more than one and fewer than all. */
export interface Branch<Part> {
  kind: 'all' | 'any' | 'some'
  /** Of `some` alone. */
  least?: number
  of: readonly Part[]
}
export type RuleBranch = Branch<Rule>
export type Rule = RuleLeaf | RuleBranch

export function isBranch(rule: Rule): rule is RuleBranch {
  return rule.kind === 'all' || rule.kind === 'any' || rule.kind === 'some'
}

/** How many parts of a branch have to hold. */
export function leastOf({ kind, least, of }: Branch<unknown>): number {
  if (kind === 'some') return least!
  return kind === 'all' ? of.length : 1
}

/** A rule of which so many parts have to hold, as plain as it can be said; undefined where there are none. */
export function someOf<Part>(least: number, of: readonly Part[]): Part | Branch<Part> | undefined {
  if (of.length < 2) return of[0]
  if (least >= of.length) return { kind: 'all', of }
  return least > 1 ? { kind: 'some', least, of } : { kind: 'any', of }
}

/**
 * @param scale the grades that may stand in it; with null, any that are written as one
 * @returns undefined for an empty rule
 * @throws RuleError with the place of the fault
 */
export function parseRule(text: string, scale: GradeScale | null = COMMON_SCALE): Rule | undefined {
  if (!text.trim()) return undefined
  const reader = new RuleReader(text, scale)
  const rule = anyOf(reader)
  if (reader.next.kind !== 'end') reader.fail('"and", "or" or the end')
  return rule
}

const DEPTH_MOST = 20

const known = new Map<string, Rule | undefined>()

/** The same of a rule whose grades were looked at before, read once per text. */
export function ruleOf(text: string): Rule | undefined {
  if (!known.has(text)) known.set(text, parseRule(text, null))
  return known.get(text)
}

class RuleReader extends Reader {
  constructor(
    rule: string,
    readonly scale: GradeScale | null
  ) {
    super(rule)
  }
}

function anyOf(reader: RuleReader, depth = 0): Rule {
  if (depth > DEPTH_MOST) reader.fail(`brackets no deeper than ${DEPTH_MOST}`)
  return chain(reader, 'or', 'any', (inner) => allOf(inner, depth))
}

function allOf(reader: RuleReader, depth: number): Rule {
  return chain(reader, 'and', 'all', (inner) => leaf(inner, depth))
}

function chain(
  reader: RuleReader,
  word: string,
  kind: 'all' | 'any',
  part: (reader: RuleReader) => Rule
): Rule {
  const of = [part(reader)]
  while (reader.accept(word)) of.push(part(reader))
  return of.length === 1 ? of[0]! : { kind, of }
}

function leaf(reader: RuleReader, depth: number): Rule {
  if (reader.accept('(')) {
    const inner = anyOf(reader, depth + 1)
    reader.expect(')')
    return inner
  }
  if (reader.next.kind === 'number') {
    const { text, at } = reader.amount('a number of credits or courses')
    if (reader.accept('of')) return listedOf(reader, Number(text), at, depth)
    if (!reader.accept('credits')) reader.fail('"credits" or "of"')
    return { kind: 'credits', credits: Number(text) }
  }
  if (reader.accept('with')) return courseLeaf(reader, true)
  if (reader.accept('permission')) return { kind: 'permission' }
  if (reader.accept('standing')) return { kind: 'standing', standing: readStanding(reader) }
  if (reader.accept('program'))
    return { kind: 'program', program: reader.word('a program code').text.toUpperCase() }
  if (reader.accept('test')) {
    const test = reader.word('the name of a test').text.toUpperCase()
    reader.expect('>=')
    return { kind: 'test', test, least: Number(reader.amount('a score').text) }
  }
  if (reader.accept('average')) return averageLeaf(reader)
  return courseLeaf(reader, false)
}

function averageLeaf(reader: RuleReader): RuleLeaf {
  const { text, at } = reader.amount('an average such as 2.5')
  const least = Number(text)
  const most = reader.scale?.most ?? Infinity
  if (!(least > 0 && least <= most))
    throw new RuleError(`an average of ${text} cannot be asked for`, reader.rule, at)
  if (!reader.accept('of')) return { kind: 'average', least }
  reader.expect('(')
  const courses = [readCourse(reader)]
  while (reader.accept(',')) courses.push(readCourse(reader))
  reader.expect(')')
  return { kind: 'average', least, courses }
}

function listedOf(reader: RuleReader, least: number, at: number, depth: number): Rule {
  reader.expect('(')
  const of = [anyOf(reader, depth + 1)]
  while (reader.accept(',')) of.push(anyOf(reader, depth + 1))
  reader.expect(')')
  if (!Number.isInteger(least) || least < 1 || least > of.length)
    throw new RuleError(`${least} of ${of.length} cannot be asked for`, reader.rule, at)
  return someOf(least, of)!
}

function courseLeaf(reader: RuleReader, sameTerm: boolean): Rule {
  const course = readCourse(reader)
  const leastGrade = reader.accept('(') ? readGrade(reader) : undefined
  return leastGrade ? { kind: 'course', course, leastGrade, sameTerm } : { kind: 'course', course, sameTerm }
}

/** A subject and a number, e.g. `STAT 212`. */
export function readCourse(reader: Reader): CourseCode {
  const subject = reader.word('a course such as STAT 212')
  const number = reader.number('a course number')
  const code = maybeCourseCode(`${subject.text} ${number.text}`)
  if (!code)
    throw new RuleError(`"${subject.text} ${number.text}" is not a course code`, reader.rule, subject.at)
  return code
}

function readStanding(reader: RuleReader): Standing {
  const { text, at } = reader.word('a class standing')
  const standing = STANDINGS.find((s) => s === text.toLowerCase())
  if (!standing) throw new RuleError(`"${text}" is not one of ${STANDINGS.join(', ')}`, reader.rule, at)
  return standing
}

/** A grade up to the closing bracket; the sign of `B+` and `C-` is a token of its own. */
export function readGrade(reader: RuleReader): string {
  const { text, at } = reader.word('a grade')
  let grade = text.toUpperCase()
  if (reader.accept('+')) grade += '+'
  else if (reader.accept('-')) grade += '-'
  if (reader.scale?.has(grade) === false) throw new RuleError(`"${grade}" is not a grade`, reader.rule, at)
  reader.expect(')')
  return grade
}
