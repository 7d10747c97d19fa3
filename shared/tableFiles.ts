/** Records and sections as tables (CSV, RFC 4180): made into what the file of the same format holds, faults told by row. */
import Papa from 'papaparse'
import type { ShapeFault } from './files'

export interface TableValue {
  value: unknown
  faults: ShapeFault[]
  /** Where in the table a place of the value stands; what stands in no row is as it was. */
  rowOf: (path: string) => string
}

type Row = Record<string, string>
interface Rows {
  /** With its number, the header being row 1. */
  rows: { at: number; row: Row }[]
  faults: ShapeFault[]
}

/** The rows of a table with these columns, in any order; those that are optional may be left out. */
function rowsOf(text: string, needed: readonly string[], optional: readonly string[]): Rows {
  const known = [...needed, ...optional]
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''))
  const [header = [], ...lines] = data
  const names = header.map((name) => name.trim())
  const faults = errors
    .filter((one) => one.type === 'Quotes')
    .map((one): ShapeFault => ({ path: `row ${(one.row ?? 0) + 1}`, message: one.message }))
  const fault = (message: string) => faults.push({ path: 'row 1', message })
  for (const name of needed) if (!names.includes(name)) fault(`has to have a column ${name}`)
  for (const [i, name] of names.entries())
    if (!known.includes(name)) fault(`has a column "${name}"; the columns are ${known.join(', ')}`)
    else if (names.indexOf(name) < i) fault(`has the column ${name} twice`)
  const rows = lines.flatMap((cells, i) => {
    if (cells.every((cell) => !cell.trim())) return []
    if (cells.length > names.length)
      faults.push({
        path: `row ${i + 2}`,
        message: `has ${cells.length} cells, and there are ${names.length} columns`
      })
    const row = Object.fromEntries(names.map((name, n) => [name, (cells[n] ?? '').trim()]))
    return [{ at: i + 2, row }]
  })
  return { rows, faults }
}

/** A number where it is one; else the text, of which the shape says what is wrong. */
const numeric = (cell: string) => (/^-?\d+(?:\.\d+)?$/.test(cell) ? Number(cell) : cell)
/** What of a row is said. */
const said = (row: Row, names: readonly string[], read: (cell: string) => unknown = (cell) => cell) =>
  Object.fromEntries(names.flatMap((name) => (row[name] ? [[name, read(row[name])]] : [])))
const listed = (cell: string) =>
  cell
    .split(';')
    .map((one) => one.trim())
    .filter(Boolean)

const STATUSES = ['taken', 'registered', 'planned'] as const

/** `course,term,credits`, and `grade`, `origin`, `status`, `campus`, `mode`, `categories` where they are there. */
export function recordTable(text: string): TableValue {
  const { rows, faults } = rowsOf(
    text,
    ['course', 'term', 'credits'],
    ['grade', 'origin', 'status', 'campus', 'mode', 'categories']
  )
  const parts = { record: [] as object[], registered: [] as object[], planned: [] as object[] }
  const at = { record: [] as number[], registered: [] as number[], planned: [] as number[] }
  for (const { at: number, row } of rows) {
    const status = STATUSES.find((one) => one === (row.status || 'taken'))
    if (!status) {
      faults.push({ path: `row ${number}/status`, message: `has to be ${STATUSES.join(', ')} or nothing` })
      continue
    }
    if (status !== 'taken')
      for (const name of status === 'planned'
        ? ['grade', 'origin', 'campus', 'mode', 'categories']
        : ['grade', 'origin'])
        if (row[name])
          faults.push({ path: `row ${number}/${name}`, message: `has to be empty of what is ${status}` })
    const common = { course: row.course, term: row.term, credits: numeric(row.credits ?? '') }
    const held = { ...said(row, ['campus', 'mode']), ...said(row, ['categories'], listed) }
    const part = status === 'taken' ? 'record' : status
    at[part].push(number)
    parts[part].push(
      status === 'taken'
        ? { ...common, term: row.term || null, grade: row.grade || null, ...said(row, ['origin']), ...held }
        : { ...common, ...(status === 'registered' && held) }
    )
  }
  return {
    value: { format: 'ridgeway record 1', ...parts },
    faults,
    rowOf: (path) =>
      path.replace(
        /^(record|registered|planned)\/(\d+)/,
        (_, part: keyof typeof at, i: string) => `row ${at[part][Number(i)]}`
      )
  }
}

const MEETING = ['days', 'start', 'end', 'from', 'to'] as const
const PLAIN = ['course', 'number', 'kind', 'parent', 'half', 'campus', 'mode', 'topic', 'block'] as const
const FIGURES = ['credits', 'capacity', 'taken'] as const
const MARKS = ['officeOnly', 'cancelled'] as const

/** A row for each meeting, with the section's code; what else is said of a section stands in its first row, or alike in all. */
export function sectionsTable(text: string): TableValue {
  const { rows, faults } = rowsOf(
    text,
    ['code', 'term', 'course', 'number', ...MEETING],
    ['room', ...PLAIN.slice(2), ...FIGURES, 'instructors', ...MARKS]
  )
  const sections: { code: string | undefined; meetings: object[] }[] = []
  const firstOf = new Map<string, { row: Row; section: number }>()
  const rowAt: { section: number; meetings: number[] }[] = []
  const mark = (cell: string) => (cell === 'yes' ? true : cell === 'no' ? false : cell)
  for (const { at, row } of rows) {
    const code = row.code ?? ''
    let first = firstOf.get(code)
    if (!first) {
      first = { row, section: sections.length }
      firstOf.set(code, first)
      rowAt.push({ section: at, meetings: [] })
      sections.push({
        code,
        ...said(row, PLAIN),
        ...said(row, FIGURES, numeric),
        ...said(row, ['instructors'], listed),
        ...said(row, MARKS, mark),
        meetings: []
      })
    }
    // Meetings may be at other campuses; the first row's is the section's.
    for (const name of [...PLAIN, ...FIGURES, ...MARKS, 'term', 'instructors'])
      if (name !== 'campus' && row[name] && row[name] !== first.row[name])
        faults.push({
          path: `row ${at}/${name}`,
          message: `has to be as in the first row of ${code}, or empty`
        })
    if (!MEETING.some((name) => row[name])) continue
    rowAt[first.section]!.meetings.push(at)
    const where = said(row, ['campus', 'room'])
    sections[first.section]!.meetings.push({
      ...Object.fromEntries(MEETING.map((name) => [name, row[name]])),
      ...where
    })
  }
  const terms = [...new Set(rows.flatMap(({ row }) => row.term || []))]
  if (terms.length > 1)
    faults.push({ path: '', message: `has sections of ${terms.join(' and ')}; it has to be of one term` })
  return {
    value: { format: 'ridgeway sections 1', term: terms[0] ?? '', sections },
    faults,
    rowOf: (path) =>
      path
        .replace(
          /^sections\/(\d+)\/meetings\/(\d+)/,
          (_, s: string, m: string) => `row ${rowAt[Number(s)]!.meetings[Number(m)]}`
        )
        .replace(/^sections\/(\d+)/, (_, s: string) => `row ${rowAt[Number(s)]!.section}`)
  }
}
