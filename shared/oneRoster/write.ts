/** Writing a OneRoster set: whole, with its manifest. */
import Papa from 'papaparse'
import type { RosterFile } from './read'
import { headerOf, OWN_TABLES, TABLES, type Row, type Table } from './tables'

/** Files of the standard of which nothing is kept here, named in the manifest as absent. */
const ABSENT = [
  'categories',
  'classResources',
  'courseResources',
  'demographics',
  'resources',
  'userProfiles'
]

export function writeRoster(tables: ReadonlyMap<Table, readonly Row[]>, source: string): RosterFile[] {
  const manifest = [
    ['propertyName', 'value'],
    ['manifest.version', '1.0'],
    ['oneroster.version', '1.2'],
    ...TABLES.filter((table) => !OWN_TABLES.has(table)).map((table) => [
      `file.${table}`,
      tables.has(table) ? 'bulk' : 'absent'
    ]),
    ...ABSENT.map((name) => [`file.${name}`, 'absent']),
    ['source.systemName', source],
    ['source.systemCode', 'ridgeway']
  ]
  return [
    { name: 'manifest.csv', text: csv(manifest) },
    ...[...tables].map(([table, rows]) => {
      const header = headerOf(table)
      return {
        name: `${table}.csv`,
        text: csv([header, ...rows.map((row) => header.map((name) => row[name] ?? ''))])
      }
    })
  ]
}

/** RFC 4180, the last line ended too. */
const csv = (rows: readonly (readonly string[])[]): string =>
  `${Papa.unparse(rows as string[][], { newline: '\r\n' })}\r\n`
