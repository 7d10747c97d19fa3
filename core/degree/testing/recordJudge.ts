// oxlint-disable max-lines -- a judge is read beside the answers it is written from, in one go
/**
 * The best reading by trying every one, from what `docs/answers.md` says: numbers 1 to 11 of its order. It shares no
 * code with the search it judges, nor with what makes the question of a record: it reads sets, grades and layers
 * for itself.
 */
import type { ConditionSpec } from '../conditions'
import type { AreaSpec, NeedSpec, ProgramSpec, RequirementSpec } from '../program'
import type { RecordCase } from './recordCases'

interface One {
  code: string
  credits: number
  /** 0 earned, 1 under way, 2 registered, 3 planned; 4 for a course left. */
  level: number
  grade: string | null
  here: boolean
  /** Repeats a course that is earned. */
  repeat: boolean
}

interface JudgeNeed extends NeedSpec {
  program: number
  area: AreaSpec
  layer: number
  /** The branch it stands in, `choice/branch`. */
  branch: string | undefined
}

export type Tuple = number[]

export function compareTuples(a: Tuple, b: Tuple): number {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return a[i]! - b[i]!
  return 0
}

/** Whether a course is in a set as the cases write them. */
function inSet(text: string, code: string): boolean {
  const [subject, number] = code.split(' ') as [string, string]
  const level = Number(number[0]) * 100
  return text.split(' or ').some((part) => {
    let last = ''
    return part.split(', ').some((item) => {
      const range = /^([A-Z]+) (\d+)-(\d+)$/.exec(item)
      if (item === 'any') return true
      if (item === 'level 300+') return level >= 300
      if (item.endsWith(' *')) return subject === item.slice(0, -2)
      if (range)
        return (
          subject === range[1] && Number(number) >= Number(range[2]) && Number(number) <= Number(range[3])
        )
      const whole = /^\d/.test(item) ? `${last} ${item}` : item
      last = whole.split(' ')[0]!
      return whole === code
    })
  })
}

const POINTS: Record<string, number> = { A: 4, B: 3, C: 2, D: 1, F: 0 }

export class RecordJudge {
  readonly needs: JudgeNeed[] = []
  readonly ones: One[] = []
  private readonly layers: number

  constructor(private readonly given: RecordCase) {
    let layers = 0
    given.specs.forEach((spec, program) => {
      const base = layers++
      for (const area of spec.areas) {
        const layer = area.shares ? layers++ : base
        const walk = (list: readonly RequirementSpec[], branch: string | undefined) => {
          for (const one of list) {
            if ('choose' in one) for (const way of one.of) walk(way.needs, `${one.id}/${way.id}`)
            else this.needs.push({ ...one, program, area, layer, branch })
          }
        }
        walk(area.needs, undefined)
      }
    })
    this.layers = layers
    this.gather()
  }

  private course(code: string) {
    return this.given.catalog.courses.find((one) => one.code === code)!
  }

  private alike(a: string, b: string): boolean {
    const names = (one: string, other: string) => this.course(one).equivalents.some((c) => c === other)
    return a === b || (names(a, b) && names(b, a))
  }

  private excludes(a: string, b: string): boolean {
    const { courses } = this.given.catalog
    // Two that are one course exclude the same ones.
    const names = (one: string, other: string) =>
      courses.some(
        ({ code, exclusive }) => this.alike(code, one) && exclusive.some((c) => this.alike(c, other))
      )
    return names(a, b) || names(b, a)
  }

  private gather(): void {
    const { record, held, planned } = this.given
    const passed = record
      .filter((one) => one.grade !== null && one.grade !== 'F')
      .sort((a, b) => POINTS[b.grade!]! - POINTS[a.grade!]!)
    for (const { course: code, credits, grade, origin } of passed)
      if (!this.ones.some((one) => this.alike(one.code, code)))
        this.ones.push({ code, credits, level: 0, grade, here: origin === 'here', repeat: false })
    const ahead = [
      ...record.filter((one) => one.grade === null).map((one) => ({ ...one, level: 1 })),
      ...held.map((one) => ({ ...one, level: 2 })),
      ...planned.map((one) => ({ ...one, level: 3 }))
    ]
    for (const { course: code, credits, level } of ahead) {
      const same = this.ones.filter((one) => this.alike(one.code, code))
      if (same.some((one) => one.level > 0)) continue
      this.ones.push({ code, credits, level, grade: null, here: true, repeat: same.length > 0 })
    }
  }

  /** Whether a course counts where the set names it, itself or as one it counts as. */
  private isIn(text: string, code: string): boolean {
    if (inSet(text, code)) return true
    // An equivalent is named: by its code alone, a range or a subject does not name it.
    return this.course(code).equivalents.some((other) =>
      text.split(/ or |, /).some((item, i, all) => {
        const subject = all
          .slice(0, i + 1)
          .map((one) => /^([A-Z]+) \d+$/.exec(one)?.[1])
          .findLast((one) => one)
        return (/^\d+$/.test(item) ? `${subject} ${item}` : item) === other
      })
    )
  }

  accepts(need: JudgeNeed, one: One): boolean {
    if (need.measure === 'credits' && one.credits === 0) return false
    return this.isIn(need.from, one.code) && !this.isTooLow(need, one)
  }

  private isTooLow(need: JudgeNeed, one: One): boolean {
    return Boolean(need.leastGrade) && one.grade !== null && POINTS[one.grade]! < POINTS[need.leastGrade!]!
  }

  /** Which needs are asked for: every way to choose branches. */
  private ways(): boolean[][] {
    const choices = new Map<string, Set<string>>()
    for (const { branch } of this.needs) {
      if (!branch) continue
      const [choice, way] = branch.split('/') as [string, string]
      choices.set(choice, (choices.get(choice) ?? new Set()).add(way))
    }
    let ways: Map<string, string>[] = [new Map()]
    for (const [choice, of] of choices)
      ways = ways.flatMap((way) => [...of].map((one) => new Map(way).set(choice, one)))
    return ways.map((way) =>
      this.needs.map(({ branch }) => !branch || way.get(branch.split('/')[0]!) === branch.split('/')[1])
    )
  }

  private worth(need: JudgeNeed, one: One): number {
    return need.measure === 'courses' ? 1 : one.credits
  }

  private isMet(need: JudgeNeed, members: readonly One[]): boolean {
    const sum = (list: readonly One[]) => list.reduce((total, one) => total + this.worth(need, one), 0)
    if (sum(members) < need.amount) return false
    if (need.subjects && new Set(members.map(({ code }) => code.split(' ')[0])).size < need.subjects)
      return false
    return (need.including ?? []).every(
      (part) => sum(members.filter((one) => this.isIn(part.from, one.code))) >= part.amount
    )
  }

  /** The members of each need under a placing: by one and layer, a need or -1. */
  private membersOf(ones: readonly One[], placing: readonly number[]): One[][] {
    const members: One[][] = this.needs.map(() => [])
    placing.forEach((n, i) => n >= 0 && members[n]!.push(ones[Math.floor(i / this.layers)]!))
    return members
  }

  /** Whether the placing keeps every rule but that of idle courses, which only grows out of the last one. */
  private isLegal(ones: readonly One[], placing: readonly number[]): boolean {
    const members = this.membersOf(ones, placing)
    const credits = (list: readonly One[]) => list.reduce((sum, one) => sum + one.credits, 0)
    const isOver = (most: { credits?: number; courses?: number }, list: readonly One[]) =>
      most.courses === undefined ? credits(list) > most.credits! : list.length > most.courses
    for (let n = 0; n < this.needs.length; n++) {
      const need = this.needs[n]!
      const own = members[n]!
      if (need.measure === 'courses' && own.length > need.amount) return false
      for (const part of need.atMost ?? [])
        if (
          isOver(
            part,
            own.filter((one) => this.isIn(part.from, one.code))
          )
        )
          return false
      if (need.perSubject !== undefined) {
        const ofSubject = new Map<string, number>()
        for (const { code } of own) {
          const [subject] = code.split(' ') as [string]
          ofSubject.set(subject, (ofSubject.get(subject) ?? 0) + 1)
        }
        if ([...ofSubject.values()].some((n) => n > need.perSubject!)) return false
      }
      // Free choice takes what comes until it is full.
      if (need.area.free && credits(own) - Math.max(0, ...own.map((one) => one.credits)) >= need.amount)
        if (own.length) return false
    }
    const inNeeds = (holds: (need: JudgeNeed) => boolean) =>
      new Set(this.needs.flatMap((need, n) => (holds(need) ? members[n]! : [])))
    /** Of courses on one side those that are on the other too, by whichever attempt. */
    const both = (some: ReadonlySet<One>, others: ReadonlySet<One>) =>
      [...some].filter((one) => [...others].some((other) => this.alike(one.code, other.code)))
    for (const [program, spec] of this.given.specs.entries()) {
      for (const limit of spec.limits ?? []) {
        const all = this.needs.flatMap((need, n) => (need.program === program ? members[n]! : []))
        if (
          isOver(
            limit,
            all.filter((one) => this.isIn(limit.from, one.code))
          )
        )
          return false
      }
      for (const area of spec.areas) {
        if (!area.shares) continue
        const own = inNeeds((need) => need.area === area)
        const among = inNeeds((need) => need.program === program && area.shares!.with.includes(need.area.id))
        const others = inNeeds(
          (need) =>
            need.program === program && need.area !== area && !area.shares!.with.includes(need.area.id)
        )
        if (credits(both(own, among)) > area.shares.credits) return false
        if (both(own, others).length) return false
      }
      if (program > 0 && spec.mayShare !== undefined) {
        const [own, first] = [
          inNeeds((need) => need.program === program),
          inNeeds((need) => need.program === 0)
        ]
        if (credits(both(own, first)) > spec.mayShare) return false
      }
    }
    const counts = (i: number, layer?: number) =>
      layer === undefined
        ? placing.slice(i * this.layers, (i + 1) * this.layers).some((n) => n >= 0)
        : (placing[i * this.layers + layer] ?? -1) >= 0
    for (let i = 0; i < ones.length; i++)
      for (let k = i + 1; k < ones.length; k++) {
        const [a, b] = [ones[i]!.code, ones[k]!.code]
        if (this.alike(a, b)) {
          for (let layer = 0; layer < this.layers; layer++)
            if (counts(i, layer) && counts(k, layer)) return false
        } else if (this.excludes(a, b) && counts(i) && counts(k)) return false
      }
    return true
  }

  private hasIdle(members: readonly (readonly One[])[]): boolean {
    return this.needs.some(
      (need, n) =>
        need.measure === 'credits' &&
        !need.area.free &&
        members[n]!.some((one) =>
          this.isMet(
            need,
            members[n]!.filter((other) => other !== one)
          )
        )
    )
  }

  /** Conditions not met with what counts up to a level. */
  private unmet(members: readonly (readonly One[])[], level: number): number {
    const isShort = (spec: ProgramSpec, program: number, condition: ConditionSpec) => {
      if (condition.asks !== 'credits') return false
      const counted = new Set<One>()
      this.needs.forEach((need, n) => {
        if (need.program !== program) return
        for (const one of members[n]!)
          if (
            one.level <= level &&
            this.isIn(condition.from ?? 'any', one.code) &&
            (one.here || !condition.here)
          )
            counted.add(one)
      })
      // Each course once: by its firmest attempt.
      const once = [...counted].filter(
        (one) => ![...counted].some((other) => other.level < one.level && this.alike(other.code, one.code))
      )
      return once.reduce((sum, one) => sum + one.credits, 0) < condition.least
    }
    return this.given.specs.reduce(
      (sum, spec, program) =>
        sum + (spec.conditions ?? []).filter((condition) => isShort(spec, program, condition)).length,
      0
    )
  }

  private asked(active: readonly boolean[]): number[] {
    return this.needs.flatMap((need, n) => (active[n] && !need.area.free ? [n] : []))
  }

  /** Numbers 2 to 11 of a placing. */
  private rest(placing: readonly number[], active: readonly boolean[]): Tuple {
    const members = this.membersOf(this.ones, placing)
    const asked = this.asked(active)
    const open = (level: number) =>
      asked.filter(
        (n) =>
          !this.isMet(
            this.needs[n]!,
            members[n]!.filter((one) => one.level <= level)
          )
      ).length
    const waste = asked.reduce((sum, n) => {
      const need = this.needs[n]!
      if (need.measure === 'courses') return sum
      return sum + Math.max(0, members[n]!.reduce((total, one) => total + one.credits, 0) - need.amount)
    }, 0)
    const levels = [3, 2, 1, 0]
    // Free choice that is not full matters where nothing else is open.
    const free = this.needs.filter(
      (need, n) => active[n] && need.area.free && !this.isMet(need, members[n]!)
    ).length
    const whole = open(3)
    return [
      whole,
      whole === 0 ? free : 0,
      ...levels.slice(1).map(open),
      ...levels.map((level) => this.unmet(members, level)),
      waste
    ]
  }

  /** Courses left: not taken, not excluded, and to be had at all. */
  private left(): One[] {
    const { catalog } = this.given
    const has = (code: string) =>
      this.ones.some((one) => one.code === code || this.course(one.code).equivalents.some((c) => c === code))
    const canBeHad = (code: string, asking: string[]): boolean => {
      const { prerequisite } = this.course(code)
      if (!prerequisite) return true
      if (prerequisite.startsWith('test') || asking.includes(code)) return false
      return (
        has(prerequisite) ||
        catalog.courses.some(
          (one) =>
            (one.code === prerequisite || one.equivalents.some((c) => c === prerequisite)) &&
            !this.excludes(one.code, code) &&
            canBeHad(one.code, [...asking, code])
        )
      )
    }
    return catalog.courses.flatMap(({ code, credits }): One[] => {
      const same = this.ones.filter((one) => this.alike(one.code, code))
      if (same.some((one) => one.level > 0)) return []
      if (this.ones.some((one) => this.excludes(one.code, code)) || !canBeHad(code, [])) return []
      return [{ code, credits, level: 4, grade: null, here: true, repeat: same.length > 0 }]
    })
  }

  private readonly leftOnes: One[] = []
  private readonly dead = new Map<string, number>()

  /** Number 1: needs open in the end, were the courses left used as well as can be. */
  private beyond(placing: readonly number[], active: readonly boolean[], goal: number): number {
    const asked = this.asked(active)
    const key = `${placing.join()} ${active.join()}`
    const known = this.dead.get(key)
    if (known !== undefined) return known
    const ones = [...this.ones, ...this.leftOnes]
    const isOpen = (at: readonly number[]) => {
      const members = this.membersOf(ones, at)
      return asked.filter((n) => !this.isMet(this.needs[n]!, members[n]!)).length
    }
    let best = isOpen(placing)
    const go = (at: number[]): void => {
      if (best <= goal) return
      best = Math.min(best, isOpen(at))
      if (at.length === ones.length * this.layers) return
      const one = ones[Math.floor(at.length / this.layers)]!
      const layer = at.length % this.layers
      const own = this.ones.filter((other) => this.alike(other.code, one.code))
      const places = asked.filter((n) => {
        const need = this.needs[n]!
        if (need.layer !== layer || !this.accepts(need, one)) return false
        // A course is repeated for a need that the earned one cannot serve.
        return own.every((other) => this.isIn(need.from, other.code) && this.isTooLow(need, other))
      })
      for (const n of [...places, -1]) {
        const next = [...at, n]
        if (n < 0 || this.isLegal(ones, next)) go(next)
      }
    }
    go([...placing])
    this.dead.set(key, best)
    return best
  }

  /** The tuple of a reading given by need and key of its courses; undefined where it breaks a rule. */
  tupleOf(placing: readonly number[], active: readonly boolean[]): Tuple | undefined {
    if (!this.isLegal(this.ones, placing) || this.hasIdle(this.membersOf(this.ones, placing)))
      return undefined
    return [this.beyond(placing, active, 0), ...this.rest(placing, active)]
  }

  /** The best tuple of all readings. */
  best(): Tuple {
    this.leftOnes.push(...this.left())
    let best: Tuple | undefined
    for (const active of this.ways()) {
      const slots = this.ones.length * this.layers
      const found: { placing: number[]; rest: Tuple }[] = []
      const go = (placing: number[]): void => {
        if (placing.length === slots) {
          if (this.hasIdle(this.membersOf(this.ones, placing))) return
          found.push({ placing, rest: this.rest(placing, active) })
          return
        }
        const one = this.ones[Math.floor(placing.length / this.layers)]!
        const layer = placing.length % this.layers
        go([...placing, -1])
        this.needs.forEach((need, n) => {
          if (!active[n] || need.layer !== layer || !this.accepts(need, one)) return
          const next = [...placing, n]
          if (this.isLegal(this.ones, next)) go(next)
        })
      }
      go([])
      found.sort((a, b) => compareTuples(a.rest, b.rest))
      for (const { placing, rest } of found) {
        const goal = best ? best[0]! : Infinity
        // Of readings that are no better otherwise only one with fewer beyond reach would be.
        const beyond = this.beyond(placing, active, 0)
        const tuple = [beyond, ...rest]
        if (!best || compareTuples(tuple, best) < 0) best = tuple
        if (beyond === 0 && goal >= 0) break
      }
    }
    return best!
  }

  /** The size of the question that `completes` asks, in decisions. */
  get layerCount(): number {
    return this.layers
  }

  /** What is taken, by code, with courses more; as `completes` wants them. */
  with(more: readonly string[]): One[] {
    return [
      ...this.ones,
      ...more.map((code): One => {
        const repeat = this.ones.some((one) => this.alike(one.code, code))
        return { code, credits: this.course(code).credits, level: 3, grade: null, here: true, repeat }
      })
    ]
  }

  /** Whether some reading of these courses meets every need of some way through the branches. */
  completes(ones: readonly One[]): boolean {
    return this.ways().some((active) => {
      const asked = this.needs.flatMap((_, n) => (active[n] ? [n] : []))
      const slots = ones.length * this.layers
      const accepts = asked.map((n) => ones.map((one) => this.accepts(this.needs[n]!, one)))
      const canStill = (placing: readonly number[]): boolean => {
        const members = this.membersOf(ones, placing)
        return asked.every((n, a) => {
          const need = this.needs[n]!
          const later = ones.filter(
            (_, i) => accepts[a]![i] && i * this.layers + need.layer >= placing.length
          )
          const sum = [...members[n]!, ...later].reduce((total, one) => total + this.worth(need, one), 0)
          return sum >= need.amount
        })
      }
      const go = (placing: number[]): boolean => {
        const members = this.membersOf(ones, placing)
        if (asked.every((n) => this.isMet(this.needs[n]!, members[n]!))) return true
        if (placing.length === slots || !canStill(placing)) return false
        const i = Math.floor(placing.length / this.layers)
        const layer = placing.length % this.layers
        return (
          asked.some((n, a) => {
            if (this.needs[n]!.layer !== layer || !accepts[a]![i]) return false
            const next = [...placing, n]
            return this.isLegal(ones, next) && go(next)
          }) || go([...placing, -1])
        )
      }
      return go([])
    })
  }

  /** Which needs are asked for, from those that an answer shows. */
  activeFrom(shown: ReadonlySet<string>): boolean[] {
    return this.needs.map((need) => shown.has(need.id))
  }

  /** A placing from the courses of each need, each named by its code, how firm it is, and whether it was graded. */
  placingFrom(
    evidence: readonly { need: string; code: string; level: number; graded: boolean }[]
  ): number[] | undefined {
    const placing = Array.from({ length: this.ones.length * this.layers }, () => -1)
    for (const { need: id, code, level, graded } of evidence) {
      const n = this.needs.findIndex((need) => need.id === id)
      const i = this.ones.findIndex(
        (one) => one.code === code && one.level === level && (one.grade !== null) === graded
      )
      if (i < 0 || n < 0 || !this.accepts(this.needs[n]!, this.ones[i]!)) return undefined
      const slot = i * this.layers + this.needs[n]!.layer
      if (placing[slot] !== -1) return undefined
      placing[slot] = n
    }
    return placing
  }
}
