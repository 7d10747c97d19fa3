/** What is wrong with a program against a catalog: rules, courses that are not there, needs out of reach. */
import { subjectOf, type Catalog, type Course } from '../catalog'
import {
  compileProgram,
  ProgramError,
  takes,
  type CompileOptions,
  type CourseSet,
  type Need,
  type Program,
  type ProgramSpec
} from '../degree'
import type { Fault } from './fault'

/** The first fault of the program itself, or all that it asks of a catalog which cannot give it. */
export function checkProgram(spec: ProgramSpec, catalog: Catalog, options: CompileOptions = {}): Fault[] {
  let program: Program
  try {
    program = compileProgram(spec, options)
  } catch (error) {
    if (!(error instanceof ProgramError)) throw error
    const { path, problem, rule, at } = error
    return [rule === path ? { code: 'program', path, problem } : { code: 'rule', path, problem, rule, at }]
  }
  return [
    ...againstCatalog(program, catalog),
    ...(program.entry ? againstCatalog(program.entry, catalog) : [])
  ]
}

function againstCatalog(program: Program, catalog: Catalog): Fault[] {
  const { spec, needs, limits, conditions } = program
  const unknown = (set: CourseSet, path: string) =>
    set.named
      .filter((code) => !catalog.maybeCourse(code))
      .map((course): Fault => ({ code: 'unknownCourse', path, course, rule: set.text }))
  const suggested = (spec.suggested ?? []).flatMap((slots, term) =>
    slots.flatMap((slot) => {
      if (typeof slot !== 'string' || catalog.maybeCourse(slot)) return []
      const path = `${spec.code}/suggested/${term + 1}`
      return [{ code: 'unknownCourse', path, course: slot, rule: '' } as Fault]
    })
  )
  return [
    ...needs.flatMap((need) => {
      const path = `${spec.code}/${need.area}/${need.id}`
      const sets = [
        need.set,
        ...need.including.map((part) => part.set),
        ...need.atMost.map((part) => part.set)
      ]
      return [...sets.flatMap((set) => unknown(set, path)), ...reach(need, path, catalog)]
    }),
    ...limits.flatMap((limit) => unknown(limit.set, `${spec.code}/limits/${limit.title}`)),
    ...conditions.flatMap((one) => unknown(one.set, `${spec.code}/conditions/${one.spec.id}`)),
    ...suggested
  ]
}

/** Whether the catalog's courses, each taken once, could meet the need at all. */
function reach(need: Need, path: string, catalog: Catalog): Fault[] {
  const rule = need.set.text
  const fitting = catalog.courses.filter((course) => takes(need, course))
  const faults: Fault[] = []
  const short = (asks: number, courses: readonly Course[], of: CourseSet) => {
    if (courses.some((course) => course.repeatable)) return
    const most =
      need.measure === 'courses'
        ? courses.length
        : courses.reduce((sum, course) => sum + course.creditsMost, 0)
    if (most < asks)
      faults.push({ code: 'outOfReach', path, asks, most, measure: need.measure, rule: of.text })
  }
  short(need.amount, fitting, need.set)
  for (const part of need.including)
    short(
      part.amount,
      fitting.filter((course) => part.set.has(course)),
      part.set
    )
  const subjects = new Set(fitting.map((course) => subjectOf(course.code))).size
  if (need.subjects !== undefined && subjects < need.subjects)
    faults.push({ code: 'outOfReach', path, asks: need.subjects, most: subjects, measure: 'subjects', rule })
  if (fitting.length && fitting.every((course) => !course.offered.seasons.length))
    faults.push({ code: 'notOffered', path, rule })
  return faults
}
