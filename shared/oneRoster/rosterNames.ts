/** How rows of a set are named, and whether two say the same. */
import type { Row, Table } from './tables'
import type { Known } from './plan'

/** The season and the year of a term by its first day: `AU27`. */
export function termCodeOf(start: string): string {
  const [year, month] = [start.slice(2, 4), Number(start.slice(5, 7))]
  return `${month >= 8 ? 'AU' : month <= 4 ? 'SP' : 'SU'}${year}`
}

export const slug = (text: string): string =>
  text
    .normalize('NFD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')

/** `class-AU27-ENVI-310-01`, `final-AU27-ENVI-310` → `AU27-ENVI-310` */
export const courseIn = (id: string): string => id.split('-').slice(1, 4).join('-')

export function orgId(row: Row): Known {
  const own = row.identifier || slug(row.name!).slice(0, 12)
  switch (row.type) {
    case 'district':
      return { id: 'institution' }
    case 'school':
      return { id: `campus-${own.toUpperCase()}` }
    case 'department':
      return { id: `department-${slug(row.name!)}` }
    default:
      return { id: row.sourcedId!, left: 'A district, its schools and departments are kept here.' }
  }
}

export const nameOf = (user: Row): string => `${user.givenName!} ${user.familyName!}`

/** What a line lacks to be something new. */
export function lackingOf(table: Table, row: Row): string | undefined {
  if (table === 'courses' && !row['metadata.credits'])
    return 'metadata.credits is needed of a course that is not here yet.'
  if (table === 'academicSessions' && row.endDate! <= row.startDate!)
    return 'endDate has to come after startDate.'
  return undefined
}

/** Numbers by what they are, other text as it stands. */
export const isAlike = (a: string, b: string): boolean =>
  a === b || (a !== '' && b !== '' && /^[\d.]+$/.test(a + b) && Number(a) === Number(b))
