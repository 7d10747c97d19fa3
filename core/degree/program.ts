/**
 * A program version: what a student has to meet, as a tree.
 *
 * Areas are the branches people talk about ("Data core"); each holds needs, the leaves that courses
 * count toward, and choices between branches of needs. A need is measured in courses or in credits.
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
  /** Its courses come from at least so many subjects. */
  subjects?: number
  /** Parts that have to come from narrower sets, in the need's own measure. */
  including?: { from: string; amount: number }[]
  /** At most so many credits may come from a narrower set. */
  atMost?: { from: string; credits: number }[]
}

/** So many of these branches are taken; all of them stand for the same credits. */
export interface ChoiceSpec {
  id: string
  title: string
  choose: number
  of: BranchSpec[]
}

export interface BranchSpec {
  id: string
  title: string
  needs: RequirementSpec[]
}

export type RequirementSpec = NeedSpec | ChoiceSpec

export interface AreaSpec {
  id: string
  title: string
  /** Free choice has a hue of its own and takes what nothing else wants. */
  free?: boolean
  /** Its courses may count in these areas as well, up to so many credits; it adds nothing to the total. */
  shares?: { with: string[]; credits: number }
  needs: RequirementSpec[]
}

export interface ProgramSpec {
  code: string
  title: string
  shortTitle: string
  kind: ProgramKind
  catalogYear: string
  /** Credits of the whole program; the sum of its areas without those that share. */
  credits: number
  areas: AreaSpec[]
  /** At most so many credits of a set count in these areas, or anywhere in the program. */
  limits?: { title: string; from: string; credits: number; areas?: string[] }[]
  /** Credits that may count in the student's first program too; without it there is no limit. */
  mayShare?: number
}

/** A need made ready: its sets read, its place in the program's own order known. */
export interface Need extends Omit<NeedSpec, 'including' | 'atMost'> {
  area: string
  order: number
  set: CourseSet
  including: readonly { set: CourseSet; amount: number }[]
  atMost: readonly { set: CourseSet; credits: number }[]
}

export interface Program {
  spec: ProgramSpec
  needs: readonly Need[]
  limits: readonly { title: string; set: CourseSet; credits: number; areas: readonly string[] }[]
}

export function isChoice(requirement: RequirementSpec): requirement is ChoiceSpec {
  return 'choose' in requirement
}

/** The credits a requirement stands for; of a choice, of the branches that have to be taken. */
function creditsOf(requirement: RequirementSpec): number {
  if (!isChoice(requirement)) return requirement.credits
  return requirement.choose * sum(requirement.of[0]?.needs ?? [])
}

const sum = (needs: readonly RequirementSpec[]) => needs.reduce((total, one) => total + creditsOf(one), 0)

/** Credits of an area's own total. */
export function areaCredits(area: AreaSpec): number {
  return sum(area.needs)
}

/**
 * Reads every rule of a program and refuses what cannot hold: a set that cannot be read, an unknown
 * grade or area, an id used twice, a choice of more branches than there are or of unequal ones, areas
 * that do not add up to the program's credits.
 * @throws RuleError quoting the rule or naming the place.
 */
export function compileProgram(spec: ProgramSpec): Program {
  const ids = new Set<string>()
  const needs: Need[] = []
  const fail = (problem: string, where: string): never => {
    throw new RuleError(problem, where, 0)
  }
  const once = (id: string, where: string) => {
    if (ids.has(id)) throw new RuleError('this id is used twice', where, where.length - id.length)
    ids.add(id)
  }
  const read = (requirement: RequirementSpec, area: string, path: string): void => {
    const where = `${path}/${requirement.id}`
    once(requirement.id, where)
    if (isChoice(requirement)) {
      const { choose, of } = requirement
      if (!(Number.isInteger(choose) && choose >= 1 && choose <= of.length)) {
        fail(`${choose} of ${of.length} branches cannot be chosen`, where)
      }
      if (new Set(of.map((branch) => sum(branch.needs))).size > 1) {
        fail('the branches of a choice have to stand for the same credits', where)
      }
      for (const branch of of) {
        once(branch.id, `${where}/${branch.id}`)
        for (const inner of branch.needs) read(inner, area, `${where}/${branch.id}`)
      }
      return
    }
    const { including = [], atMost = [], ...need } = requirement
    if (!(need.amount > 0)) fail('the amount has to be above zero', where)
    if (need.measure === 'courses' && !Number.isInteger(need.amount)) fail('courses come whole', where)
    if (need.leastGrade !== undefined && !isGrade(need.leastGrade)) {
      fail(`"${need.leastGrade}" is not a grade`, where)
    }
    if (need.measure === 'credits' && need.credits !== need.amount) {
      fail('a need in credits has to stand for that many credits', where)
    }
    if (need.subjects !== undefined && need.measure === 'courses' && need.subjects > need.amount) {
      fail(`${need.amount} courses cannot come from ${need.subjects} subjects`, where)
    }
    for (const part of including) {
      if (part.amount > need.amount) fail('a part cannot be more than the whole need', where)
    }
    needs.push({
      ...need,
      area,
      order: needs.length,
      set: parseCourseSet(need.from),
      including: including.map((part) => ({ set: parseCourseSet(part.from), amount: part.amount })),
      atMost: atMost.map((part) => ({ set: parseCourseSet(part.from), credits: part.credits }))
    })
  }
  const areas = new Set(spec.areas.map((area) => area.id))
  for (const area of spec.areas) {
    if (area.free && area.needs.some(isChoice))
      fail('free choice cannot hold a choice of branches', `${spec.code}/${area.id}`)
    for (const need of area.needs) read(need, area.id, `${spec.code}/${area.id}`)
    for (const other of area.shares?.with ?? []) {
      if (!areas.has(other)) fail(`there is no area "${other}" to share with`, `${spec.code}/${area.id}`)
    }
  }
  const total = spec.areas.reduce((credits, area) => credits + (area.shares ? 0 : areaCredits(area)), 0)
  if (total !== spec.credits) {
    fail(`the areas add up to ${total} credits, the program says ${spec.credits}`, spec.code)
  }
  const limits = (spec.limits ?? []).map(({ title, from, credits, areas: some }) => {
    for (const area of some ?? [])
      if (!areas.has(area)) fail(`there is no area "${area}"`, `${spec.code}: ${title}`)
    return { title, set: parseCourseSet(from), credits, areas: some ?? [...areas] }
  })
  return { spec, needs, limits }
}

/** Whether the need's set takes the course, whatever the grade. */
export function takes(need: Need, course: Course): boolean {
  return need.set.has(course)
}
