/** Reading a OneRoster set: every line that is wrong is told with its file, its number and why; the others are read. */
import Papa from 'papaparse'
import { COLUMNS, TABLES, type Row, type Table } from './tables'

export interface RosterFile {
  name: string
  text: string
}

export interface RosterFault {
  file: string
  /** From 1 on, the header being the first; 0 for the file as a whole. */
  line: number
  message: string
}

export interface RosterLine {
  line: number
  row: Row
}

export interface RosterSet {
  tables: Map<Table, readonly RosterLine[]>
  faults: RosterFault[]
}

/** Files that the standard has and of which nothing is kept here. */
const PASSED_OVER =
  /^(categories|demographics|resources|classResources|courseResources|userProfiles|userResources|scoreScales|lineItemLearningObjectiveIds|lineItemScoreScales|resultLearningObjectiveIds|resultScoreScales)\.csv$/
const ROWS_MOST = 400_000

/** So many lines are looked at before others have their turn. */
export const LINES_A_TURN = 2000

/** What comes out of a piece of work that pauses, done at once. */
export function atOnce<T>(work: Generator<void, T>): T {
  for (;;) {
    const { done, value } = work.next()
    if (done) return value
  }
}

/** Reads the files of a set, whole or some of them. Never throws. */
export const readRoster = (files: readonly RosterFile[]): RosterSet => atOnce(reading(files))

/** The same, with pauses. */
export function* reading(files: readonly RosterFile[]): Generator<void, RosterSet> {
  const tables = new Map<Table, readonly RosterLine[]>()
  const faults: RosterFault[] = []
  for (const { name, text } of files) {
    const base = name.replace(/^.*[\\/]/, '')
    const table = TABLES.find((one) => `${one}.csv` === base)
    const whole = (message: string) => faults.push({ file: base, line: 0, message })
    if (base === 'manifest.csv') faults.push(...manifestFaults(text))
    else if (!table && !PASSED_OVER.test(base)) whole('is not a file of a OneRoster set that is known here.')
    else if (table && tables.has(table)) whole('is there twice.')
    else if (table) tables.set(table, yield* readTable(table, base, text, faults))
  }
  if (!tables.size && !faults.length)
    faults.push({ file: '', line: 0, message: 'There is no file of a OneRoster set.' })
  return { tables, faults }
}

function manifestFaults(text: string): RosterFault[] {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''))
  const versionAt = data.findIndex(([name]) => name === 'oneroster.version')
  const version = data[versionAt]?.[1]
  if (version === '1.2') return []
  const message =
    version === undefined
      ? 'It does not say its version: oneroster.version is needed.'
      : `It says version ${version}, and 1.2 is read here.`
  return [{ file: 'manifest.csv', line: versionAt + 1, message }]
}

interface Read {
  line: number
  cells: string[]
  broken?: string
}

/** Characters that are cut into records at once, unless a record is longer. */
const PART = 1 << 18

/**
 * A text cut into records, each with the number of the line on which it begins (RFC 4180: a quoted cell may hold line ends);
 * part by part, so that of a long file there is never more than a part beside what is kept of it.
 */
function* recordsOf(text: string): Generator<Read[]> {
  let line = 1
  /** As its first part is written, so are the others. */
  let written: { delimiter: string; newline: '\n' | '\r' | '\r\n' } | undefined
  for (let at = 0, size = PART; at < text.length;) {
    const part = text.slice(at, at + size)
    const records: (Read & { ends: number })[] = []
    let begins = line
    let cursor = 0
    Papa.parse<string[]>(part, {
      ...written,
      step: ({ data, errors, meta }) => {
        const broken = errors.find((one) => one.type === 'Quotes')?.message
        records.push({ line: begins, cells: data, ends: meta.cursor, ...(broken ? { broken } : {}) })
        for (let i = part.indexOf('\n', cursor); i >= 0 && i < meta.cursor; i = part.indexOf('\n', i + 1))
          begins++
        cursor = meta.cursor
        written ??= { delimiter: meta.delimiter, newline: meta.linebreak as '\n' }
      }
    })
    // The last of a part may have been cut through: it is read again with the next one.
    const cut = at + size < text.length ? records.pop() : undefined
    if (cut && !records.length) {
      size *= 4
      continue
    }
    if (records.length) yield records
    line = cut?.line ?? begins
    at += cut ? records.at(-1)!.ends : size
    size = PART
  }
}

function* readTable(
  table: Table,
  file: string,
  text: string,
  faults: RosterFault[]
): Generator<void, RosterLine[]> {
  const fault = (line: number, message: string) => void faults.push({ file, line, message })
  const lines: RosterLine[] = []
  const seen = new Map<string, number>()
  let names: string[] | undefined
  let read = 0
  for (const records of recordsOf(text.replace(/^\uFEFF/, ''))) {
    if (!names) {
      names = records.shift()?.cells.map((one) => one.trim()) ?? []
      const wrong = wrongWithHeader(table, names)
      for (const message of wrong.faults) fault(1, message)
      if (wrong.isUnreadable) return []
    }
    read += records.length
    if (read > ROWS_MOST) {
      fault(0, `has more than ${ROWS_MOST} lines.`)
      return []
    }
    for (const { line, cells, broken } of records) {
      if (cells.length === 1 && !cells[0]!.trim()) continue
      const row = rowOf(table, names, cells)
      const wrong = broken
        ? `A quoted cell does not end: ${broken}.`
        : cells.length !== names.length
          ? `It has ${cells.length} cells, and the header ${names.length}.`
          : wrongWith(table, row)
      const before = seen.get(row.sourcedId ?? '')
      if (wrong) fault(line, wrong)
      else if (before !== undefined) fault(line, `sourcedId ${row.sourcedId!} is that of line ${before} too.`)
      else lines.push({ line, row })
      if (row.sourcedId && before === undefined) seen.set(row.sourcedId, line)
    }
    yield
  }
  if (!names) for (const message of wrongWithHeader(table, []).faults) fault(1, message)
  return lines
}

function wrongWithHeader(
  table: Table,
  names: readonly string[]
): { faults: string[]; isUnreadable: boolean } {
  const columns = COLUMNS[table]
  const missing = columns.filter((one) => one.isNeeded && !names.includes(one.name)).map((one) => one.name)
  const strange = names.filter(
    (name) => !columns.some((one) => one.name === name) && !name.startsWith('metadata.')
  )
  const twice = names.find((name, i) => names.indexOf(name) !== i)
  return {
    faults: [
      ...(missing.length ? [`The columns ${missing.join(', ')} are needed.`] : []),
      ...(strange.length ? [`The standard has no column ${strange.join(', ')} here.`] : []),
      ...(twice === undefined ? [] : [`The column ${twice} is there twice.`])
    ],
    isUnreadable: missing.length > 0 || twice !== undefined
  }
}

const known = new Map(TABLES.map((table) => [table, new Set(COLUMNS[table].map((one) => one.name))]))

/** The cells in which something stands, of columns that are known: of a line nothing else is kept. */
function rowOf(table: Table, names: readonly string[], cells: readonly string[]): Row {
  const row: Record<string, string> = {}
  const columns = known.get(table)!
  names.forEach((name, i) => {
    const cell = cells[i]?.trim()
    if (cell && columns.has(name)) row[name] = cell
  })
  return row
}

/** What is wrong with a line by itself. */
function wrongWith(table: Table, row: Row): string | undefined {
  for (const { name, isNeeded, check } of COLUMNS[table]) {
    const cell = row[name] ?? ''
    if (!cell && isNeeded) return `${name} is needed.`
    const wrong = cell && check?.(cell)
    if (wrong) return `${name} ${wrong}.`
    // Text that no database keeps, and nobody means.
    if (/[^\P{Cc}\t\n\r]|\uFFFD|\p{Cs}/u.test(cell)) return `${name} holds characters that are none.`
  }
  return undefined
}
