import type { Who } from '#shared/accounts/responses'

/** One of the places the band leads to, with the line that says how it stands there. */
export interface Place {
  to: string
  name: string
  state: string
  key: string
}

const OF_STUDENTS = [
  { at: 'today', name: 'Today', key: 't' },
  { at: 'degree', name: 'Degree', key: 'd' },
  { at: 'route', name: 'Route', key: 'r' },
  { at: 'week', name: 'Week', key: 'w' },
  { at: 'register', name: 'Register', key: 'e' }
] as const
export type PlaceOfStudent = (typeof OF_STUDENTS)[number]['at']

/** The five places of a student; without states, as long as these are not known. */
export const placesOfStudent = (id: number, states?: Record<PlaceOfStudent, string>): Place[] =>
  OF_STUDENTS.map(({ at, name, key }) => ({
    to: `/students/${id}/${at}`,
    name,
    key,
    state: states?.[at] ?? ''
  }))

const HOMES: Record<Who['role'], string> = {
  student: '/sign-in',
  programAdvisor: '/desk',
  supportAdvisor: '/desk',
  registrar: '/terms',
  instructor: '/teaching',
  department: '/teaching',
  office: '/holds'
}

/** The first place of a person. */
export function homeOf(who: Pick<Who, 'role' | 'student'> | null): string {
  if (!who) return '/sign-in'
  if (who.student) return `/students/${who.student}/today`
  return HOMES[who.role]
}

/** Where somebody goes who has come in: where they wanted to, as far as it is a place of theirs. */
export function placeWanted(next: unknown, who: Pick<Who, 'role' | 'student'>): string {
  const isHere = typeof next === 'string' && next.startsWith('/') && !next.startsWith('//')
  return isHere && isPlaceOf(next.split(/[?#]/)[0]!, who) ? next : homeOf(who)
}

/** Whether a page is for this person by their role; which students staff may read, the server decides. */
export function isPlaceOf(path: string, who: Pick<Who, 'role' | 'student'>): boolean {
  if (path === '/account') return true
  const within = (place: string) => path === place || path.startsWith(`${place}/`)
  if (who.student) return within(`/students/${who.student}`) || within('/courses')
  if (who.role === 'office') return within('/holds') || within('/courses')
  const teaches = who.role === 'instructor' || who.role === 'department'
  if (within('/teaching')) return teaches
  if (within('/demand') || within('/offer')) return who.role === 'department' || who.role === 'registrar'
  if (teaches) return within('/requests') || within('/courses')
  if (['/terms', '/people', '/holds', '/programs', '/files', '/guidance', '/connections'].some(within))
    return who.role === 'registrar'
  if (path === '/desk' || path === '/students') return who.role !== 'registrar'
  return true
}
