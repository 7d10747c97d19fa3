/** A course as the registrar writes it, and what is wrong with it, field by field. */
import type { Catalog, Course, OfferingPattern, StudyLevel } from '#core/catalog'
import { faultsBrought, type Fault } from '#core/checking'
import { parseCourseSet } from '#core/degree'
import type { CourseCode, StudentId } from '#core/ids'
import { RuleError } from '#core/rules'
import type { Effect } from '#shared/advising/effects'
import { faultText } from '#shared/route/texts'
import { listsFor } from './context'

/** All that is written of a course; money is in the currency's units. */
export interface WrittenCourse {
  code: CourseCode
  title: string
  description: string
  credits: number
  creditsMost: number
  level: StudyLevel
  yearLevel: number
  seasons: OfferingPattern['seasons']
  years: OfferingPattern['years']
  prerequisite: string
  repeatable: boolean
  fee: number
  categories: string[]
  equivalents: CourseCode[]
  exclusive: CourseCode[]
}

export interface WrittenCoursePage {
  course: WrittenCourse
  version: number
  /** Students who have it on their route or their record. */
  students: number
}

/** What a course as it is written would make of the degrees of students, of those from a place in their list on. */
export interface CourseEffects {
  /** How many it could be of weight for. */
  of: number
  students: { id: StudentId; name: string; number: string; effects: Effect[] }[]
}

/** How many students are looked at in one request. */
export const EFFECT_LOT = 12

export interface FieldFault {
  field: string
  message: string
}

/** The course as the core reads it. */
export const courseOf = ({ seasons, years, description: _, fee: __, ...rest }: WrittenCourse): Course => ({
  ...rest,
  offered: { seasons, years }
})

/** What is wrong with a course that is new, or written anew, beside the courses that there are. */
export function courseFaults(written: WrittenCourse, catalog: Catalog): FieldFault[] {
  const itself = (['equivalents', 'exclusive'] as const).flatMap((field): FieldFault[] =>
    written[field].includes(written.code) ? [{ field, message: 'has to name other courses than itself' }] : []
  )
  if (itself.length) return itself
  return faultsBrought(catalog, catalog.with(courseOf(written))).map((fault) => ({
    field: fieldOf(fault, written),
    // The rule itself stands at the field.
    message: `has a fault: ${fault.code === 'rule' ? `${fault.problem}, at position ${fault.at + 1}` : faultText(fault)}`
  }))
}

function fieldOf(fault: Fault, written: WrittenCourse): string {
  if (fault.code === 'creditRange') return 'creditsMost'
  if (fault.code !== 'unknownCourse' || fault.rule) return 'prerequisite'
  return written.equivalents.includes(fault.course) ? 'equivalents' : 'exclusive'
}

/** A course list as of a catalog year. */
export interface WrittenList {
  name: string
  catalogYear: string
  title: string
  /** A text of the course-set language. */
  from: string
}

/** The courses that a list would hold, in order; or what is wrong with its text, and from which character on. */
export function listedCourses(
  { name, catalogYear, from }: WrittenList,
  catalog: Catalog,
  lists: readonly WrittenList[]
): { courses: CourseCode[] } | { fault: string; at: number } {
  // What names the list itself goes in a circle, as it does where a program asks for it.
  const known = listsFor(
    [
      ...lists.filter((one) => one.name !== name || one.catalogYear !== catalogYear),
      { name, catalogYear, from }
    ],
    catalogYear
  )
  try {
    parseCourseSet(`list ${name}`, known)
    const set = parseCourseSet(from, known)
    const missing = set.named.find((code) => !catalog.maybeCourse(code))
    if (missing)
      return { fault: `the catalog has no course ${missing}`, at: Math.max(0, from.indexOf(missing)) }
    return { courses: catalog.courses.filter((one) => set.has(one)).map((one) => one.code) }
  } catch (error) {
    if (!(error instanceof RuleError)) throw error
    return { fault: error.problem, at: error.rule === from ? error.at : 0 }
  }
}
