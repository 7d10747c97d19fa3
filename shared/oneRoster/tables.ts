/**
 * The files of a OneRoster 1.2 set (1EdTech, OneRoster CSV binding 1.2; columns from memory of it) as far as they are kept
 * here: their columns, what may stand in each, and which row another one names. What the standard has no column for is in
 * columns of our own, which it lets begin with `metadata.`.
 */
import { parseDayLetters } from '#core/formats'
import { maybeCourseCode, TERM_CODE } from '#core/ids'
import { SEASONS } from '#core/catalog'
import { GRADE_RESULTS, GradeScale, type GradeSpec } from '#core/grades'
import { parseRule, STANDINGS } from '#core/requisites'
import { RuleError } from '#core/rules'

export const TABLES = [
  'orgs',
  'grades',
  'academicSessions',
  'courses',
  'classes',
  'users',
  'roles',
  'enrollments',
  'lineItems',
  'results'
] as const
export type Table = (typeof TABLES)[number]
/** Of which the standard knows nothing: the grades that are given. */
export const OWN_TABLES: ReadonlySet<Table> = new Set<Table>(['grades'])

/** A line of a file: what stands in its columns. */
export type Row = Readonly<Record<string, string>>

/** What is wrong with a cell that is not empty, as the end of a sentence; nothing where it is right. */
type Check = (text: string) => string | undefined

export interface Column {
  name: string
  isNeeded?: true
  check?: Check
  /** The table of the row that is named; of several, with commas between, each. */
  names?: Table
  isMany?: true
  /** Compared with what is here, and taken over where it differs. */
  isKept?: true
  /** Compared too, and changed on a page of its own. */
  changedOn?: string
}

const words =
  (most: number): Check =>
  (text) =>
    text.length > most ? `has to be ${most} characters or less` : undefined
const oneOf =
  (...all: readonly string[]): Check =>
  (text) =>
    all.includes(text) ? undefined : `has to be ${all.join(' or ')}`
const date: Check = (text) =>
  /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(text)) && isSameDay(text)
    ? undefined
    : 'has to be a date such as 2027-08-30'
const isSameDay = (text: string) => new Date(`${text}T00:00:00Z`).toISOString().startsWith(text)
const number =
  (least: number, most: number): Check =>
  (text) =>
    /^\d+(\.\d+)?$/.test(text) && Number(text) >= least && Number(text) <= most
      ? undefined
      : `has to be a number from ${least} to ${most}`
const wholeNumber =
  (least: number, most: number): Check =>
  (text) =>
    /^\d{1,6}$/.test(text) ? number(least, most)(text) : 'has to be a whole number'
const mail: Check = (text) =>
  /^[^\s@,]+@[^\s@,]+\.[^\s@,]+$/.test(text) && text.length <= 120
    ? undefined
    : 'has to be an address such as a@b.example'
const courseCode: Check = (text) =>
  maybeCourseCode(text) === text ? undefined : 'has to be a course code such as ENVI 310'

const prerequisite: Check = (text) => {
  if (text.length > 500) return 'has to be 500 characters or less'
  try {
    parseRule(text, null)
    return undefined
  } catch (error) {
    if (!(error instanceof RuleError)) throw error
    return `has to be a rule such as STAT 212 (C) and MATH 125: ${error.message}`
  }
}

/** `MW 09:30-10:45; F 13:00-14:50` */
const meetings: Check = (text) =>
  text.split(';').every((one) => meetingOf(one) !== undefined)
    ? undefined
    : 'has to be days and hours such as MW 09:30-10:45; F 13:00-14:50'

export interface RosterMeeting {
  days: NonNullable<ReturnType<typeof parseDayLetters>>
  start: number
  end: number
}
export function meetingOf(text: string): RosterMeeting | undefined {
  const read = /^\s*([MTWRFSU]+) ([01]\d|2[0-3]):([0-5]\d)-([01]\d|2[0-3]):([0-5]\d)\s*$/.exec(text)
  const days = read && parseDayLetters(read[1]!)
  if (!days) return undefined
  const [start, end] = [Number(read[2]) * 60 + Number(read[3]), Number(read[4]) * 60 + Number(read[5])]
  return start < end ? { days, start, end } : undefined
}

const needed = (name: string, more: Partial<Column> = {}): Column => ({ name, isNeeded: true, ...more })
const kept = (name: string, check?: Check): Column => ({ name, isKept: true, ...(check ? { check } : {}) })
const plain = (...names: string[]): Column[] => names.map((name) => ({ name }))

const ALWAYS: Column[] = [
  needed('sourcedId', { check: words(255) }),
  { name: 'status', check: oneOf('active', 'tobedeleted', 'inactive') },
  ...plain('dateLastModified')
]

/** A grade of a scale. */
export const GRADE = /^[A-Z]{1,4}$|^[A-Z]{1,3}[+-]$/

export const COLUMNS: Readonly<Record<Table, readonly Column[]>> = {
  orgs: [
    ...ALWAYS,
    needed('name', { check: words(80), isKept: true }),
    needed('type', { check: oneOf('department', 'school', 'district', 'local', 'state', 'national') }),
    { name: 'identifier', check: words(12) },
    { name: 'parentSourcedId', names: 'orgs' },
    { name: 'metadata.timeZone', check: words(64) }
  ],
  grades: [
    ...ALWAYS,
    needed('grade', {
      check: (text) => (GRADE.test(text) ? undefined : 'has to be capital letters, such as A, B+ or WF')
    }),
    // Empty where the grade does not enter an average.
    kept('points', number(0, 20)),
    needed('result', { check: oneOf(...GRADE_RESULTS), isKept: true }),
    needed('rank', { check: number(0, 20), isKept: true })
  ],
  academicSessions: [
    ...ALWAYS,
    needed('title', { check: words(40), changedOn: 'the term’s page' }),
    needed('type', { check: oneOf('gradingPeriod', 'semester', 'schoolYear', 'term') }),
    needed('startDate', { check: date, changedOn: 'the term’s page' }),
    needed('endDate', { check: date, changedOn: 'the term’s page' }),
    { name: 'parentSourcedId', names: 'academicSessions' },
    needed('schoolYear', {
      check: (text) => (/^\d{4}$/.test(text) ? undefined : 'has to be a year such as 2028')
    }),
    {
      name: 'metadata.code',
      check: (text) => (TERM_CODE.test(text) ? undefined : 'has to be a term code such as AU27')
    },
    { name: 'metadata.season', check: oneOf(...SEASONS) }
  ],
  courses: [
    ...ALWAYS,
    ...plain('schoolYearSourcedId'),
    needed('title', { check: words(120), isKept: true }),
    needed('courseCode', { check: courseCode }),
    ...plain('grades'),
    needed('orgSourcedId', { names: 'orgs' }),
    ...plain('subjects', 'subjectCodes'),
    kept('metadata.credits', number(0.5, 30)),
    kept('metadata.creditsMost', number(0.5, 30)),
    kept('metadata.prerequisite', prerequisite),
    kept('metadata.description', words(4000)),
    { name: 'metadata.level', check: oneOf('undergraduate', 'graduate') },
    {
      name: 'metadata.seasons',
      check: (text) =>
        text
          .split(',')
          .map((one) => oneOf(...SEASONS)(one.trim()))
          .find(Boolean)
    }
  ],
  classes: [
    ...ALWAYS,
    needed('title', { check: words(160) }),
    ...plain('grades'),
    needed('courseSourcedId', { names: 'courses' }),
    {
      name: 'classCode',
      check: (text) => (/^[A-Za-z0-9]{1,6}$/.test(text) ? undefined : 'has to be 1 to 6 letters and digits')
    },
    needed('classType', { check: oneOf('homeroom', 'scheduled') }),
    ...plain('location'),
    needed('schoolSourcedId', { names: 'orgs' }),
    needed('termSourcedIds', { names: 'academicSessions', isMany: true }),
    ...plain('subjects', 'subjectCodes', 'periods'),
    { name: 'metadata.seats', check: wholeNumber(0, 2000), changedOn: 'the course’s page in the offer' },
    { name: 'metadata.meetings', check: meetings, changedOn: 'the course’s page in the offer' },
    { name: 'metadata.kind', check: oneOf('lecture', 'lab', 'tutorial', 'seminar', 'studio') },
    { name: 'metadata.mode', check: oneOf('inPerson', 'onlineHours', 'online', 'mixed') },
    { name: 'metadata.parentSourcedId', names: 'classes' }
  ],
  users: [
    ...ALWAYS,
    needed('enabledUser', { check: oneOf('true', 'false') }),
    needed('username', { check: words(60) }),
    ...plain('userIds'),
    needed('givenName', { check: words(39), isKept: true }),
    needed('familyName', { check: words(40), isKept: true }),
    ...plain('middleName'),
    {
      name: 'identifier',
      check: (text) =>
        /^[A-Za-z0-9-]{1,10}$/.test(text) ? undefined : 'has to be 1 to 10 letters, digits and hyphens'
    },
    kept('email', mail),
    ...plain('sms', 'phone', 'agentSourcedIds', 'grades', 'password', 'userMasterIdentifier'),
    ...plain('resourceSourcedIds', 'preferredGivenName', 'preferredMiddleName', 'preferredFamilyName'),
    { name: 'primaryOrgSourcedId', names: 'orgs' },
    ...plain('pronouns'),
    { name: 'metadata.standing', check: oneOf(...STANDINGS) },
    { name: 'metadata.programs', check: words(120) }
  ],
  roles: [
    ...ALWAYS,
    needed('userSourcedId', { names: 'users' }),
    needed('roleType', { check: oneOf('primary', 'secondary') }),
    needed('role', { check: words(40) }),
    { name: 'beginDate', check: date },
    { name: 'endDate', check: date },
    needed('orgSourcedId', { names: 'orgs' }),
    ...plain('userProfileSourcedId')
  ],
  enrollments: [
    ...ALWAYS,
    needed('classSourcedId', { names: 'classes' }),
    needed('schoolSourcedId', { names: 'orgs' }),
    needed('userSourcedId', { names: 'users' }),
    needed('role', { check: oneOf('administrator', 'proctor', 'student', 'teacher') }),
    { name: 'primary', check: oneOf('true', 'false') },
    { name: 'beginDate', check: date },
    { name: 'endDate', check: date },
    { name: 'metadata.credits', check: number(0, 30) }
  ],
  lineItems: [
    ...ALWAYS,
    needed('title', { check: words(160) }),
    ...plain('description', 'assignDate', 'dueDate'),
    needed('classSourcedId', { names: 'classes' }),
    ...plain(
      'categorySourcedId',
      'gradingPeriodSourcedId',
      'resultValueMin',
      'resultValueMax',
      'schoolSourcedId'
    )
  ],
  results: [
    ...ALWAYS,
    needed('lineItemSourcedId', { names: 'lineItems' }),
    needed('studentSourcedId', { names: 'users' }),
    needed('scoreStatus', {
      check: oneOf('exempt', 'fully graded', 'not submitted', 'partially graded', 'submitted')
    }),
    ...plain('score'),
    needed('scoreDate', { check: date }),
    ...plain('comment'),
    kept('textScore', words(4)),
    ...plain('classSourcedId', 'inProgress', 'incomplete', 'late', 'missing')
  ]
}

/** A scale with lines of `grades`, which add to it or change it; without one before, they are all of it. */
export function scaleWith(known: readonly GradeSpec[], rows: readonly Row[]): GradeScale {
  const scale = new Map(known.map((one) => [one.grade, one]))
  for (const row of rows) {
    const grade = row.grade!
    const points = row.points ? Number(row.points) : (scale.get(grade)?.points ?? null)
    scale.set(grade, { grade, points, result: row.result as GradeSpec['result'], rank: Number(row.rank) })
  }
  return new GradeScale([...scale.values()])
}

/** The first rows of the files that are written. */
export const headerOf = (table: Table): string[] => COLUMNS[table].map((one) => one.name)
