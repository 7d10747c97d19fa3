/**
 * The course-set language: text -> tokens -> tree -> predicate over courses.
 *
 *     set   := part (('or' | ',') part)*
 *     part  := item (('and' | 'without') item)*
 *     item  := '(' set ')' | SUBJECT NUMBER ['-' NUMBER | '+'] | SUBJECT '*'
 *            | 'category' WORD | 'level' NUMBER '+' | 'undergraduate' | 'graduate' | 'any'
 *
 * After a comma a bare number repeats the subject before it: `ENVI 101, 150`. `without` binds like
 * `and`, left to right.
 */
import { numberOf, subjectOf, type Course } from '../catalog'
import { courseCode, type CourseCode } from '../ids'
import { Reader, RuleError } from '../rules'

type SetTree =
  | { kind: 'any' }
  | { kind: 'course'; code: CourseCode }
  | { kind: 'range'; subject: string; from: number; to: number }
  | { kind: 'category'; category: string }
  | { kind: 'level'; from: number }
  | { kind: 'study'; level: 'undergraduate' | 'graduate' }
  | { kind: 'or' | 'and' | 'without'; left: SetTree; right: SetTree }

export interface CourseSet {
  readonly text: string
  has(course: Course): boolean
  /** The courses named one by one, when the set is nothing but such a list. */
  readonly listed: readonly CourseCode[] | undefined
}

/** @throws RuleError with the place of the fault; a range that can hold nothing is one. */
export function parseCourseSet(text: string): CourseSet {
  const reader = new Reader(text)
  const tree = union(reader)
  if (reader.next.kind !== 'end') reader.fail('"or", "and", "without" or the end')
  return { text, has: compile(tree), listed: listOf(tree) }
}

function union(reader: Reader): SetTree {
  let subject: string | undefined
  let left = narrowed(reader)
  if (left.kind === 'course') subject = subjectOf(left.code)
  for (;;) {
    if (!reader.accept('or') && !reader.accept(',')) return left
    if (subject && reader.next.kind === 'number') {
      const right: SetTree = { kind: 'course', code: courseCode(`${subject} ${reader.take().text}`) }
      left = { kind: 'or', left, right }
      continue
    }
    const right = narrowed(reader)
    subject = right.kind === 'course' ? subjectOf(right.code) : undefined
    left = { kind: 'or', left, right }
  }
}

function narrowed(reader: Reader): SetTree {
  let left = item(reader)
  for (;;) {
    const kind = reader.accept('and') ? 'and' : reader.accept('without') ? 'without' : undefined
    if (!kind) return left
    left = { kind, left, right: item(reader) }
  }
}

function item(reader: Reader): SetTree {
  if (reader.accept('(')) {
    const inner = union(reader)
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
    case 'level': {
      const from = Number(reader.number('a level such as 300').text)
      reader.expect('+')
      return { kind: 'level', from }
    }
  }
  const subject = word.text.toUpperCase()
  if (reader.accept('*')) return { kind: 'range', subject, from: 0, to: Infinity }
  const number = reader.number('a course number')
  if (reader.accept('+'))
    return { kind: 'range', subject, from: Number.parseInt(number.text, 10), to: Infinity }
  if (!reader.accept('-')) return { kind: 'course', code: courseCode(`${subject} ${number.text}`) }
  const last = reader.number('the last number of the range')
  const range = { from: Number.parseInt(number.text, 10), to: Number.parseInt(last.text, 10) }
  if (range.to < range.from)
    throw new RuleError(`the range ${range.from}-${range.to} is empty`, reader.rule, number.at)
  return { kind: 'range', subject, ...range }
}

function compile(tree: SetTree): (course: Course) => boolean {
  switch (tree.kind) {
    case 'any':
      return () => true
    case 'course':
      return (c) => c.code === tree.code || c.equivalents.includes(tree.code)
    case 'range':
      return (c) => {
        if (subjectOf(c.code) !== tree.subject) return false
        const number = numberOf(c.code)
        return number >= tree.from && number <= tree.to
      }
    case 'category':
      return (c) => c.categories.includes(tree.category)
    case 'level':
      return (c) => c.yearLevel * 100 >= tree.from
    case 'study':
      return (c) => c.level === tree.level
    default: {
      const left = compile(tree.left)
      const right = compile(tree.right)
      if (tree.kind === 'or') return (c) => left(c) || right(c)
      return tree.kind === 'and' ? (c) => left(c) && right(c) : (c) => left(c) && !right(c)
    }
  }
}

function listOf(tree: SetTree): CourseCode[] | undefined {
  if (tree.kind === 'course') return [tree.code]
  if (tree.kind !== 'or') return undefined
  const left = listOf(tree.left)
  const right = listOf(tree.right)
  return left && right && [...left, ...right]
}
