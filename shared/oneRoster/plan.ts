/**
 * What a set would change: each line beside what is here. Rows are known by what they are about (the code of a course, the
 * number of a student), whatever their `sourcedId`, so that a set of another system meets what is here already.
 */
import { atOnce, LINES_A_TURN, type RosterFault, type RosterLine, type RosterSet } from './read'
import { COLUMNS, TABLES, type Row, type Table } from './tables'
import { termCodeOf, slug, courseIn, orgId, nameOf, lackingOf, isAlike } from './rosterNames'

export type RosterChange = 'new' | 'changed' | 'same' | 'left'

export interface RosterItem {
  table: Table
  line: number
  /** What it is about, in our own words. */
  id: string
  change: RosterChange
  /** As it was brought, with our own ids where other rows are named. */
  row: Row
  /** Of what is changed: what is kept now, and what it would be. */
  fields: { name: string; before: string; after: string }[]
  /** Why it is left as it is. */
  reason?: string
}

/** What is here, by our own ids. */
export type Present = ReadonlyMap<Table, ReadonlyMap<string, Row>>

/** What a result has to be of to be a grade of the record. */
const FINAL = /^final( course)? (grade|mark)$/i

export const presentOf = (tables: ReadonlyMap<Table, readonly Row[]>): Present =>
  new Map([...tables].map(([table, rows]) => [table, new Map(rows.map((row) => [row.sourcedId!, row]))]))

interface Planned {
  items: RosterItem[]
  faults: RosterFault[]
}

/** @returns the lines that can be read, in the order in which they rest on one another, and what is wrong with the others */
export const planRoster = (set: RosterSet, present: Present): Planned => atOnce(planning(set, present))

/** The same, with pauses. It uses the set up, line by line, so that a large one is never there twice. */
export function* planning({ tables, faults }: RosterSet, present: Present): Generator<void, Planned> {
  const planner = new Planner(tables, present)
  const found: (RosterItem | RosterFault)[] = []
  for (const table of TABLES) {
    for (const [n, line] of (tables.get(table) ?? []).entries()) {
      if (n % LINES_A_TURN === 0) yield
      found.push(planner.item(table, line))
    }
    // What nothing names is not asked for again: of a large set it is the most.
    if (!NAMED.has(table)) tables.delete(table)
  }
  return {
    items: onceEach(found.filter((one) => 'id' in one)),
    faults: [...faults, ...found.filter((one) => 'message' in one)]
  }
}

/** Of lines about the same the first counts. */
function onceEach(items: readonly RosterItem[]): RosterItem[] {
  const first = new Map<string, number>()
  return items.map((one) => {
    const key = `${one.table} ${one.id}`
    const before = first.get(key)
    if (before === undefined) first.set(key, one.line)
    // Several classes of a course have line items of their own, and one grade.
    return before === undefined || one.change === 'left' || one.table === 'lineItems'
      ? one
      : { ...one, change: 'left', reason: `Line ${before} is about the same.` }
  })
}

/** Our own id of a row, or why there is none. */
export type Known = { id: string; left?: string } | { wrong: string }

/** Files whose lines others name. */
const NAMED: ReadonlySet<Table> = new Set(
  TABLES.flatMap((table) => COLUMNS[table].flatMap((one) => one.names ?? []))
)

class Planner {
  private readonly lines: ReadonlyMap<Table, ReadonlyMap<string, RosterLine>>
  private readonly known = new Map<string, Known>()
  private readonly students: ReadonlySet<string>
  private readonly teachers: ReadonlySet<string>

  constructor(
    tables: RosterSet['tables'],
    private readonly present: Present
  ) {
    this.lines = new Map(
      [...tables].flatMap(([table, all]) =>
        NAMED.has(table) ? [[table, new Map(all.map((one) => [one.row.sourcedId!, one]))]] : []
      )
    )
    const withRole = (role: string) =>
      new Set(
        (tables.get('roles') ?? []).flatMap(({ row }) => (row.role === role ? [row.userSourcedId!] : []))
      )
    this.students = withRole('student')
    this.teachers = withRole('teacher')
  }

  item(table: Table, { line, row }: RosterLine): RosterItem | RosterFault {
    const fault = (message: string): RosterFault => ({ file: `${table}.csv`, line, message })
    const refs: Record<string, string> = {}
    for (const { name, names, isMany } of COLUMNS[table]) {
      const cell = row[name] ?? ''
      if (!names || !cell) continue
      const ids: string[] = []
      for (const one of isMany ? cell.split(',').map((part) => part.trim()) : [cell]) {
        const known = this.resolve(names, one)
        if ('wrong' in known) return fault(`${name} names ${one}: ${known.wrong}`)
        ids.push(known.id)
      }
      refs[name] = ids.join(',')
    }
    const known = NAMED.has(table) ? this.resolve(table, row.sourcedId!) : this.idOf(table, row)
    if ('wrong' in known) return fault(known.wrong)
    return this.compared(table, line, { ...row, ...refs, sourcedId: known.id }, known)
  }

  private compared(
    table: Table,
    line: number,
    row: Row,
    { id, left }: { id: string; left?: string }
  ): RosterItem | RosterFault {
    const item = { table, line, id, row, fields: [] }
    if (left) return { ...item, change: 'left', reason: left }
    if (row.status && row.status !== 'active')
      return { ...item, change: 'left', reason: 'An import takes nothing away.' }
    const before = this.present.get(table)?.get(id)
    if (!before) {
      const lacking = lackingOf(table, row)
      return lacking ? { file: `${table}.csv`, line, message: lacking } : { ...item, change: 'new' }
    }
    const isNamed = table === 'users' && nameOf(row) === nameOf(before)
    const differing = COLUMNS[table].filter(
      ({ name, isKept, changedOn }) =>
        (isKept || changedOn) &&
        row[name] &&
        !isAlike(row[name], before[name] ?? '') &&
        // Where a name is parted is not kept.
        !(isNamed && /^(given|family)Name$/.test(name))
    )
    const fields = differing.map(({ name }) => ({ name, before: before[name] ?? '', after: row[name]! }))
    if (!fields.length) return { ...item, change: 'same' }
    const elsewhere = differing.find((one) => one.changedOn)
    if (!elsewhere) return { ...item, change: 'changed', fields }
    return {
      ...item,
      change: 'left',
      fields,
      reason: `${elsewhere.name} differs; it is changed on ${elsewhere.changedOn!}.`
    }
  }

  /** What somebody else’s id stands for. */
  private resolve(table: Table, sourcedId: string): Known {
    const key = `${table} ${sourcedId}`
    let known = this.known.get(key)
    if (!known) {
      const line = this.lines.get(table)?.get(sourcedId)
      // Whatever names itself, by others, is found here.
      this.known.set(key, { wrong: 'it rests on itself.' })
      known = line
        ? this.idOf(table, line.row)
        : this.present.get(table)?.has(sourcedId)
          ? { id: sourcedId }
          : { wrong: 'there is no such line that can be read.' }
      this.known.set(key, known)
    }
    return known
  }

  private idOf(table: Table, row: Row): Known {
    const of = (other: Table, column: string) => this.resolve(other, row[column] ?? '')
    switch (table) {
      case 'orgs':
        return orgId(row)
      case 'grades':
        return { id: `scale-${row.grade!}` }
      case 'academicSessions': {
        if (row.type === 'term') return { id: `term-${row['metadata.code'] || termCodeOf(row.startDate!)}` }
        if (row.type !== 'gradingPeriod')
          return { id: row.sourcedId!, left: 'Years are told by their terms here.' }
        const term = of(table, 'parentSourcedId')
        if ('wrong' in term)
          return { wrong: 'A gradingPeriod needs the term that it is part of, as its parent.' }
        return { id: `session-${term.id.slice('term-'.length)}-${row.startDate!}-${row.endDate!}` }
      }
      case 'courses':
        return { id: `course-${row.courseCode!.replace(' ', '-')}` }
      case 'classes': {
        const [course, term] = [of('courses', 'courseSourcedId'), this.termOf(row)]
        if ('wrong' in course) return course
        if ('wrong' in term) return term
        const about = `${term.id.slice('term-'.length)}-${course.id.slice('course-'.length)}`
        return { id: `class-${about}${row.classCode ? `-${row.classCode.toUpperCase()}` : ''}` }
      }
      case 'users':
        return this.userId(row)
      case 'roles': {
        const user = of('users', 'userSourcedId')
        return 'wrong' in user ? user : { ...user, id: `role-${user.id}-${row.role!}` }
      }
      case 'enrollments':
        return this.enrollmentId(row)
      case 'lineItems': {
        const about = of('classes', 'classSourcedId')
        if ('wrong' in about) return about
        if (!FINAL.test(row.title!))
          return { id: row.sourcedId!, left: 'Only a line item "Final grade" is kept here.' }
        return { id: `final-${courseIn(about.id)}` }
      }
      case 'results': {
        const [item, user] = [of('lineItems', 'lineItemSourcedId'), of('users', 'studentSourcedId')]
        if ('wrong' in item) return item
        if ('wrong' in user) return user
        if (item.left) return { id: row.sourcedId!, left: item.left }
        return { id: `grade-${courseIn(item.id)}-${user.id}` }
      }
    }
  }

  /** The term of a class, by the term or by a part of it. */
  private termOf(row: Row): Known {
    const known = this.resolve('academicSessions', row.termSourcedIds!.split(',')[0]!.trim())
    if ('wrong' in known) return known
    if (known.left) return { wrong: 'its term is a year, and not a term.' }
    return { id: `term-${known.id.split('-')[1]!}` }
  }

  private userId(row: Row): Known {
    const source = row.sourcedId!
    if (this.students.has(source) || source.startsWith('student-')) {
      if (!row.identifier) return { wrong: 'identifier is needed of a student: it is the student’s number.' }
      return { id: `student-${row.identifier.toUpperCase()}` }
    }
    if (this.teachers.has(source) || source.startsWith('person-')) {
      if (!row.email) return { wrong: 'email is needed of a teacher: by it the same teacher is known again.' }
      return { id: `person-${slug(row.email)}` }
    }
    const id = source
    return { id, left: 'Neither a student nor a teacher; accounts of the staff are made on their own page.' }
  }

  private enrollmentId(row: Row): Known {
    const [about, user] = [
      this.resolve('classes', row.classSourcedId!),
      this.resolve('users', row.userSourcedId!)
    ]
    if ('wrong' in about) return about
    if ('wrong' in user) return user
    if (user.left) return { id: row.sourcedId!, left: user.left }
    const isStudent = user.id.startsWith('student-')
    if ((row.role === 'student') !== isStudent)
      return { wrong: `role is ${row.role!}, and the user is ${isStudent ? 'a student' : 'none'}.` }
    if (isStudent) return { id: `taken-${courseIn(about.id)}-${user.id}` }
    if (row.role !== 'teacher')
      return { id: row.sourcedId!, left: 'Only students and teachers of a class are kept here.' }
    return { id: `teaches-${about.id}-${user.id}` }
  }
}
