/**
 * A program version: what a student has to meet, as a tree.
 *
 * Areas are the branches people talk about ("Data core"); each holds needs, the leaves that courses
 * count toward. A need is measured in courses or in credits.
 */
import type { Course } from '../catalog'
import { RuleError } from '../rules'
import { parseCourseSet, type CourseSet } from './courseSet'
import { isGrade } from './grades'

export type ProgramKind = 'degree' | 'minor' | 'certificate'

export interface NeedSpec {
  id: string
  title: string
  measure: 'courses' | 'credits'
  /** How many courses, or how many credits. */
  amount: number
  /** The credits the need stands for in totals; the amount itself when it is measured in credits. */
  credits: number
  /** A text of the course-set language. */
  from: string
  leastGrade?: string
}

export interface AreaSpec {
  id: string
  title: string
  /** Free choice has a hue of its own and takes what nothing else wants. */
  free?: boolean
  needs: NeedSpec[]
}

export interface ProgramSpec {
  code: string
  title: string
  shortTitle: string
  kind: ProgramKind
  catalogYear: string
  /** Credits of the whole program; the sum of its areas. */
  credits: number
  areas: AreaSpec[]
}

/** A need made ready: its set read, its place in the program's own order known. */
export interface Need extends NeedSpec {
  area: string
  order: number
  set: CourseSet
}

export interface Program {
  spec: ProgramSpec
  needs: readonly Need[]
}

/**
 * Reads every rule of a program and refuses what cannot hold: a set that cannot be read, an unknown
 * grade, an id used twice, areas that do not add up to the program's credits.
 * @throws RuleError quoting the rule or naming the place.
 */
export function compileProgram(spec: ProgramSpec): Program {
  const ids = new Set<string>()
  const needs: Need[] = []
  for (const area of spec.areas) {
    for (const need of area.needs) {
      const where = `${spec.code}/${area.id}/${need.id}`
      if (ids.has(need.id)) throw new RuleError('this id is used twice', where, where.length - need.id.length)
      ids.add(need.id)
      if (!(need.amount > 0)) throw new RuleError('the amount has to be above zero', where, 0)
      if (need.leastGrade !== undefined && !isGrade(need.leastGrade)) {
        throw new RuleError(`"${need.leastGrade}" is not a grade`, where, 0)
      }
      if (need.measure === 'credits' && need.credits !== need.amount) {
        throw new RuleError('a need in credits has to stand for that many credits', where, 0)
      }
      needs.push({ ...need, area: area.id, order: needs.length, set: parseCourseSet(need.from) })
    }
  }
  const sum = needs.reduce((total, need) => total + need.credits, 0)
  if (sum !== spec.credits) {
    throw new RuleError(`the areas add up to ${sum} credits, the program says ${spec.credits}`, spec.code, 0)
  }
  return { spec, needs }
}

/** Whether the need's set takes the course, whatever the grade. */
export function takes(need: Need, course: Course): boolean {
  return need.set.has(course)
}
