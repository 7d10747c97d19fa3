/**
 * From a program as written to one that can be audited: every rule is read, and what cannot hold is
 * refused with the place where it stands.
 */
import { COMMON_SCALE, type GradeScale } from '../grades'
import { RuleError } from '../rules'
import type { ConditionSpec } from './conditions'
import { parseCourseSet, type CourseLists } from './courseSet'
import {
  areaCredits,
  creditsOfAll,
  isChoice,
  type Condition,
  type LimitSpec,
  type MostSpec,
  type Need,
  type NeedSpec,
  type Program,
  type ProgramSpec,
  type RequirementSpec
} from './program'

export interface CompileOptions {
  /** The named lists of the program's catalog year. */
  lists?: CourseLists
  scale?: GradeScale
}

/** Choices inside choices, at most. */
const DEPTH_MOST = 8

/** A fault in a program: the path to the requirement, then what is wrong. */
export class ProgramError extends RuleError {
  constructor(
    problem: string,
    readonly path: string,
    rule: string = path,
    at = 0
  ) {
    super(problem, rule, at)
    this.name = 'ProgramError'
    this.message = rule === path ? `${path}: ${problem}` : `${path}: ${this.message}`
  }
}

/**
 * Reads every rule of a program and refuses what cannot hold: a set that cannot be read, an unknown
 * grade, list or area, an id used twice, a choice of more branches than there are or of unequal ones,
 * areas that do not add up to the program's credits, a suggested need that is not there.
 * @throws ProgramError with the path, quoting the rule.
 */
export function compileProgram(spec: ProgramSpec, options: CompileOptions = {}): Program {
  return new Compiler(spec, options).program()
}

class Compiler {
  private readonly ids = new Set<string>()
  private readonly needs: Need[] = []
  private readonly areas: ReadonlySet<string>

  constructor(
    private readonly spec: ProgramSpec,
    private readonly options: CompileOptions
  ) {
    this.areas = new Set(spec.areas.map((area) => area.id))
  }

  program(): Program {
    const { spec } = this
    for (const area of spec.areas) {
      const path = `${spec.code}/${area.id}`
      this.once(area.id, path)
      if (area.free && area.needs.some(isChoice)) fail('free choice cannot hold a choice of branches', path)
      for (const need of area.needs) this.requirement(need, area.id, path, 0)
      for (const other of area.shares?.with ?? []) {
        if (!this.areas.has(other)) fail(`there is no area "${other}" to share with`, path)
        if (other === area.id) fail('an area cannot share with itself', path)
      }
      if (area.shares) this.positive(area.shares.credits, 'the credits to share', path, 0)
    }
    const total = spec.areas.reduce((credits, area) => credits + (area.shares ? 0 : areaCredits(area)), 0)
    if (total !== spec.credits)
      fail(`the areas add up to ${total} credits, the program says ${spec.credits}`, spec.code)
    if (spec.mayShare !== undefined) this.positive(spec.mayShare, 'the credits to share', spec.code, 0)
    const limits = (spec.limits ?? []).map((limit, i) => this.limit(limit, `${spec.code}/limits/${i + 1}`))
    const conditions = (spec.conditions ?? []).map((one) =>
      this.condition(one, `${spec.code}/conditions/${one.id}`)
    )
    this.suggested()
    return { spec, needs: this.needs, limits, conditions, entry: this.entry() }
  }

  private requirement(requirement: RequirementSpec, area: string, parent: string, depth: number): void {
    const path = `${parent}/${requirement.id}`
    this.once(requirement.id, path)
    if (depth > DEPTH_MOST) fail(`choices go no deeper than ${DEPTH_MOST}`, path)
    if (!isChoice(requirement)) return this.need(requirement, area, path)
    const { choose, of } = requirement
    if (!(Number.isInteger(choose) && choose >= 1 && choose <= of.length))
      fail(`${choose} of ${of.length} branches cannot be chosen`, path)
    if (new Set(of.map((branch) => creditsOfAll(branch.needs))).size > 1)
      fail('the branches of a choice have to stand for the same credits', path)
    for (const branch of of) {
      this.once(branch.id, `${path}/${branch.id}`)
      for (const inner of branch.needs) this.requirement(inner, area, `${path}/${branch.id}`, depth + 1)
    }
  }

  private need({ including = [], atMost = [], ...need }: NeedSpec, area: string, path: string): void {
    this.positive(need.amount, 'the amount', path)
    this.positive(need.credits, 'the credits', path, need.measure === 'courses' ? 0 : undefined)
    if (need.measure === 'courses' && !Number.isInteger(need.amount)) fail('courses come whole', path)
    if (need.leastGrade !== undefined) this.grade(need.leastGrade, path)
    if (need.measure === 'credits' && need.credits !== need.amount)
      fail('a need in credits has to stand for that many credits', path)
    if (need.subjects !== undefined) {
      if (!Number.isInteger(need.subjects) || need.subjects < 1) fail('subjects come whole, from 1 on', path)
      if (need.measure === 'courses' && need.subjects > need.amount)
        fail(`${need.amount} courses cannot come from ${need.subjects} subjects`, path)
    }
    for (const part of including) {
      this.positive(part.amount, 'the amount of a part', path)
      if (part.amount > need.amount) fail('a part cannot be more than the whole need', path)
    }
    for (const part of atMost) this.most(part, 'of a part', path)
    if (need.perSubject !== undefined && !(Number.isInteger(need.perSubject) && need.perSubject > 0))
      fail('courses of one subject come whole, from 1 on', path)
    const set = this.set(need.from, path)
    this.needs.push({
      ...need,
      area,
      order: this.needs.length,
      set,
      including: including.map((part) => ({ set: this.set(part.from, path), amount: part.amount })),
      atMost: atMost.map(({ from, ...most }) => ({ ...most, set: this.set(from, path) })),
      substituted: []
    })
  }

  private limit({ from, areas, ...limit }: LimitSpec, path: string) {
    this.most(limit, 'of a limit', path)
    for (const area of areas ?? []) if (!this.areas.has(area)) fail(`there is no area "${area}"`, path)
    for (const grade of limit.grades ?? []) this.grade(grade, path)
    return { ...limit, set: this.set(from, path), areas: areas ?? [...this.areas] }
  }

  private most({ credits, courses }: MostSpec, what: string, path: string): void {
    if ((credits === undefined) === (courses === undefined))
      fail(`the most ${what} is said in credits or in courses, one of them`, path)
    if (credits !== undefined) this.positive(credits, `the most credits ${what}`, path, 0)
    if (courses !== undefined && !(Number.isInteger(courses) && courses >= 0))
      fail(`the most courses ${what} come whole, from 0 on`, path)
  }

  private condition(spec: ConditionSpec, path: string): Condition {
    this.once(spec.id, path)
    const most = (this.options.scale ?? COMMON_SCALE).most
    if (spec.asks === 'credits') {
      this.positive(spec.least, 'the least credits', path)
      if (spec.amongLast !== undefined && !(spec.amongLast >= spec.least))
        fail(`${spec.least} of the last ${spec.amongLast} credits cannot be reached`, path)
    }
    if (spec.asks === 'average' && !(spec.least > 0 && spec.least <= most))
      fail(`an average lies between 0 and ${most}`, path)
    if (spec.asks === 'average' && spec.best !== undefined && !(Number.isInteger(spec.best) && spec.best > 0))
      fail('the best courses of an average come whole, from 1 on', path)
    const from = spec.asks === 'credits' || spec.asks === 'average' ? spec.from : undefined
    return { spec, set: this.set(from ?? 'any', path) }
  }

  private entry(): Program | undefined {
    const { entry, code, title, catalogYear, kind, shortTitle } = this.spec
    if (!entry) return undefined
    const { needs, conditions, note } = entry
    return compileProgram(
      {
        code: `${code}/entry`,
        title: `${entry.title}: ${title}`,
        shortTitle,
        kind,
        catalogYear,
        credits: creditsOfAll(needs),
        areas: [{ id: 'entry', title: entry.title, needs, note }],
        conditions
      },
      this.options
    )
  }

  private suggested(): void {
    const needs = new Set(this.needs.map((need) => need.id))
    this.spec.suggested?.forEach((slots, term) => {
      for (const slot of slots)
        if (typeof slot !== 'string' && !needs.has(slot.need))
          fail(`there is no need "${slot.need}" to suggest`, `${this.spec.code}/suggested/${term + 1}`)
    })
  }

  private set(text: string, path: string) {
    try {
      return parseCourseSet(text, this.options.lists)
    } catch (error) {
      if (error instanceof RuleError) throw new ProgramError(error.problem, path, error.rule, error.at)
      throw error
    }
  }

  private once(id: string, path: string): void {
    if (this.ids.has(id)) throw new ProgramError('this id is used twice', path, path, path.length - id.length)
    this.ids.add(id)
  }

  private grade(grade: string, path: string): void {
    if (!(this.options.scale ?? COMMON_SCALE).has(grade)) fail(`"${grade}" is not a grade`, path)
  }

  private positive(value: number, what: string, path: string, least = Number.MIN_VALUE): void {
    if (!(value >= least && value < 1e4))
      fail(`${what} ${least ? 'has' : 'have'} to be ${least ? 'above' : 'at least'} zero`, path)
  }
}

function fail(problem: string, path: string): never {
  throw new ProgramError(problem, path)
}
