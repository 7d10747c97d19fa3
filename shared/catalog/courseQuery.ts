/** A search for courses as it stands in the address of a page, so that it can be kept and passed on. */
import { SEASONS, type StudyLevel } from '#core/catalog'
import { maybeTermCode } from '#core/ids'
import type { CourseFilter } from '#core/search'
import { MODES } from '#core/week'

export const COURSE_SORTS = ['best', 'code', 'title', 'needs', 'credits', 'seats'] as const
export type CourseSort = (typeof COURSE_SORTS)[number]

export interface CourseQuery {
  text: string
  /** The term asked about; null for the coming one. */
  term: string | null
  sort: CourseSort
  /** Null for the student's own level, which is asked for when nothing else is said. */
  study: StudyLevel | 'any' | null
  filter: Omit<CourseFilter, 'study'>
}

type Address = Record<string, string>

const LEVELS: readonly (StudyLevel | 'any')[] = ['undergraduate', 'graduate', 'any']

const listOf = (text: string | undefined) => (text ?? '').split('~').filter(Boolean)
const some = <T>(list: T[]): T[] | undefined => (list.length ? list : undefined)
const among = <T extends string>(known: readonly T[], list: string[]) =>
  some(known.filter((one) => list.includes(one)))

/** Reads an address; what it does not understand is left out. */
export function readCourseQuery(address: Readonly<Record<string, unknown>>): CourseQuery {
  const get = (key: string) => (typeof address[key] === 'string' ? (address[key] as string) : undefined)
  const years = listOf(get('years'))
    .map(Number)
    .filter((year) => Number.isInteger(year) && year > 0)
  const range = /^(\d+(?:\.5)?)-(\d+(?:\.5)?)$/.exec(get('credits') ?? '')
  const categories = listOf(get('categories')).map((one) => one.split('.'))
  const families = Object.fromEntries(
    categories.flatMap(([family, ...of]) => (of.length ? [[family!, of]] : []))
  )
  const serves = Number(get('serves'))
  return {
    text: get('q') ?? '',
    term: maybeTermCode(get('term') ?? '') ?? null,
    sort: COURSE_SORTS.find((sort) => sort === get('sort')) ?? 'best',
    study: LEVELS.find((level) => level === get('study')) ?? null,
    filter: {
      colleges: some(listOf(get('colleges'))),
      subjects: some(listOf(get('subjects'))),
      years: some(years),
      categories: Object.keys(families).length ? families : undefined,
      credits: range ? { least: Number(range[1]), most: Number(range[2]) } : undefined,
      seasons: among(SEASONS, listOf(get('seasons'))),
      runs: get('runs') === 'yes' ? true : undefined,
      needs: some(listOf(get('needs'))),
      serves: Number.isInteger(serves) && serves > 0 ? serves : undefined,
      takable: get('takable') === 'yes' ? true : undefined,
      fresh: get('fresh') === 'yes' ? true : undefined,
      modes: among(MODES, listOf(get('modes'))),
      campuses: some(listOf(get('campuses')))
    }
  }
}

/** The address of a search; what says nothing is left out. */
export function courseAddress({ text, term, sort, study, filter }: CourseQuery): Address {
  const { categories, credits, ...rest } = filter
  const address: Record<string, string | undefined> = {
    q: text.trim() || undefined,
    term: term ?? undefined,
    sort: sort === 'best' ? undefined : sort,
    study: study ?? undefined,
    credits: credits && `${credits.least}-${credits.most}`,
    categories:
      categories &&
      Object.entries(categories)
        .filter(([, of]) => of.length)
        .map(([family, of]) => [family, ...of].join('.'))
        .join('~')
  }
  for (const [key, asked] of Object.entries(rest)) {
    if (asked === true) address[key] = 'yes'
    else if (Array.isArray(asked)) address[key] = asked.join('~')
    else if (asked !== undefined) address[key] = String(asked)
  }
  return Object.fromEntries(Object.entries(address).filter((entry): entry is [string, string] => !!entry[1]))
}
