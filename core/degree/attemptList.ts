/** The list of a student's attempts, from what is on the record, held and planned. */
import type { Catalog, Term } from '../catalog'
import type { CourseCode, TermCode } from '../ids'
import { leavesOf, ruleOf } from '../requisites'
import {
  STATUS_ORDER,
  settled,
  type Apart,
  type Attempt,
  type AttemptInput,
  type Attempts,
  type HeldSeat,
  type IdleAttempt,
  type PlannedCourse,
  type RecordEntry,
  type RepeatPolicy
} from './attempt'

/**
 * The list, firmest first, then in order of term as given, then by course. Of several attempts with a grade one
 * counts, by the policy the best or the last; of courses that exclude each other the better grade, then the
 * firmer one. What is ahead of a course that is earned repeats it: it stands in where the grade is not enough.
 * A course planned twice, or planned while it is under way or held, is not counted again, unless it may be
 * repeated for credit. `settled` says which of those that stand in a reading has made use of.
 */
export function attemptsOf(input: AttemptInput, terms: readonly Pick<Term, 'code'>[]): Attempts {
  const list = new AttemptList(input, terms)
  list.addRecord()
  for (const seat of input.held) list.addSeat(seat)
  for (const plan of input.planned) list.addPlanned(plan)
  return list.whole(stillAveraged(input, terms))
}

const NONE: ReadonlySet<RecordEntry> = new Set()

/** What of a record would not be idle, were nothing brought in. */
function stillAveraged(input: AttemptInput, terms: readonly Pick<Term, 'code'>[]): ReadonlySet<RecordEntry> {
  const here = input.record.filter((entry) => entry.origin === 'here')
  if (here.length === input.record.length) return NONE
  const alone = new AttemptList({ ...input, record: here }, terms)
  alone.addRecord()
  const idle = new Map(alone.whole().idle.map((one) => [one.entry, one]))
  return new Set(
    here.filter((entry) => {
      const out = idle.get(entry)
      return !out || (out.why === 'failed' && out.by === undefined)
    })
  )
}

type Keyless = Omit<Attempt, 'key'>
/** What is ahead and has no grade. */
const AHEAD = { grade: null, origin: 'here', detail: 'plain', placedByOffice: false } as const

function keyed(attempt: Keyless): Attempt {
  return { ...attempt, key: `${attempt.course}@${attempt.term ?? attempt.origin}` }
}

/** What is added first stands: what is added later is measured against it. */
class AttemptList {
  private readonly catalog: Catalog
  private readonly policy: RepeatPolicy
  private readonly ofTerm: ReadonlyMap<string, number>
  private readonly counted: Attempt[] = []
  private readonly spare: Attempt[] = []
  private readonly idle: IdleAttempt[] = []
  private readonly repeats: PlannedCourse[] = []
  /** By course, or the group of those that count as it. */
  private readonly there = new Map<string, Attempt>()
  private readonly repeated = new Set<string>()

  constructor(
    private readonly input: AttemptInput,
    terms: readonly Pick<Term, 'code'>[]
  ) {
    this.catalog = input.catalog
    this.policy = input.repeats ?? 'best'
    this.ofTerm = new Map(terms.map((term, i) => [term.code, i]))
  }

  /** From the best grade down, so that each is measured against a better one. */
  addRecord(): void {
    const { record } = this.input
    const standing = this.policy === 'last' ? this.lastOnly(record) : new Set(record)
    const best = [...record].sort(
      (a, b) => this.rankOf(b) - this.rankOf(a) || this.placeOf(a.term) - this.placeOf(b.term)
    )
    for (const entry of best) {
      const result = this.resultOf(entry)
      if (result === 'withdrawn' || result === 'audited') this.idle.push({ entry, why: result })
      else if (result === 'failed') {
        const passed = this.there.get(this.groupOf(entry.course))
        this.idle.push({ entry, why: result, ...(passed?.status === 'earned' && { by: passed.course }) })
      } else if (!standing.has(entry)) this.idle.push({ entry, why: 'repeated' })
      else if (result === 'earned') this.addEarned(entry)
      else this.addUnderWay(entry)
    }
  }

  addSeat(seat: HeldSeat): void {
    const { course, credits, term, placedByOffice, campus = null, mode = null, categories = null } = seat
    if (this.there.get(this.groupOf(course))?.term === term) return
    const hasBegun = (this.input.phaseIn?.(course, term) ?? 'future') !== 'future'
    this.addAhead({
      ...AHEAD,
      course,
      credits,
      term,
      status: hasBegun ? 'underWay' : 'registered',
      detail: this.isOver(course, term) ? 'gradeDue' : 'plain',
      placedByOffice,
      campus,
      mode,
      categories
    })
  }

  addPlanned(plan: PlannedCourse): void {
    const { course, credits, term } = plan
    const before = this.there.get(this.groupOf(course))
    if (before && before.status !== 'planned' && before.term === term) return
    if (this.counted.some((one) => one.again && one.course === course && one.term === term)) return
    const mark = `${term} ${course}`
    const { waitlisted, picked, heldAs } = this.input
    const detail = waitlisted?.has(mark) ? 'waitlisted' : picked?.has(mark) ? 'picked' : 'plain'
    const attempt = { ...AHEAD, course, credits, term, status: 'planned', detail } as const
    if (this.addAhead({ ...attempt, ...heldAs?.(course, term) }) !== 'counted') this.repeats.push(plan)
  }

  whole(stillAveraged = NONE): Attempts {
    const { counted, spare, idle, repeats, policy } = this
    const all: Attempts = {
      counted: this.inOrder(counted),
      spare: this.inOrder(spare),
      apart: this.apartAmong([...counted, ...spare]),
      order: new Map(this.inOrder([...counted, ...spare]).map((one, i) => [one.key, i])),
      idle,
      stillAveraged,
      repeats,
      policy
    }
    // A repeat that no reading asks for may still be what a later course asks for.
    const asked = counted.filter((one) => one.again && this.isAskedFor(one))
    return settled(all, new Set(asked.map((one) => one.key)))
  }

  private add(attempt: Keyless): void {
    const full = keyed(attempt)
    this.counted.push(full)
    this.there.set(this.groupOf(attempt.course), full)
  }

  private addEarned(entry: RecordEntry): void {
    const { course, grade } = entry
    const attempt = { ...this.takenAs(entry), grade, status: 'earned', detail: 'plain' } as const
    const excluded = this.excluding(course)
    if (this.there.has(this.groupOf(course)) && !this.mayRepeat(course))
      this.idle.push({ entry, why: 'repeated' })
    else if (excluded) {
      this.spare.push(keyed({ ...attempt, again: true }))
      this.idle.push({ entry, why: 'exclusive', by: excluded })
    } else this.add(attempt)
  }

  private addUnderWay(entry: RecordEntry): void {
    const { course, term, grade } = entry
    const detail = grade !== null ? 'incomplete' : this.isOver(course, term) ? 'gradeDue' : 'plain'
    const excluded = this.excluding(course)
    const done = this.addAhead({ ...this.takenAs(entry), grade: null, status: 'underWay', detail })
    if (done === 'twice') this.idle.push({ entry, why: 'repeated' })
    else if (done === 'exclusive') this.idle.push({ entry, why: 'exclusive', by: excluded! })
  }

  /**
   * What is ahead: counted; a repeat of what is earned, kept out by another, or there twice. Whatever it comes to, its
   * term carries it.
   */
  private addAhead(attempt: Keyless): 'counted' | 'again' | 'exclusive' | 'twice' {
    const group = this.groupOf(attempt.course)
    const before = this.there.get(group)
    const isSame = before !== undefined && !this.mayRepeat(attempt.course)
    if (!isSame && !this.excluding(attempt.course)) {
      this.add(attempt)
      return 'counted'
    }
    const isFirst = !isSame || (before.status === 'earned' && !this.repeated.has(group))
    this.counted.push(keyed({ ...attempt, again: true, ...(!isFirst && { twice: true }) }))
    if (!isSame) return 'exclusive'
    this.repeated.add(group)
    return isFirst ? 'again' : 'twice'
  }

  private takenAs({ course, credits, term, origin, campus, mode, categories }: RecordEntry) {
    const held = { campus: campus ?? null, mode: mode ?? null, categories: categories ?? null }
    return { course, credits, term, origin, ...held, placedByOffice: false }
  }

  private resultOf({ grade }: RecordEntry) {
    return grade === null ? 'open' : this.catalog.scale.meaning(grade).result
  }

  private rankOf({ grade }: RecordEntry): number {
    if (grade === null) return 0.5
    const { result, rank } = this.catalog.scale.meaning(grade)
    return result === 'earned' ? rank + 1 : result === 'open' ? 0.4 : rank
  }

  /** Without those that were taken again, later, with a result. */
  private lastOnly(record: readonly RecordEntry[]): Set<RecordEntry> {
    const isReplaced = (entry: RecordEntry) =>
      record.some(
        (other) =>
          this.groupOf(other.course) === this.groupOf(entry.course) &&
          this.placeOf(other.term) > this.placeOf(entry.term) &&
          !['withdrawn', 'audited', 'open'].includes(this.resultOf(other))
      )
    return new Set(record.filter((entry) => this.mayRepeat(entry.course) || !isReplaced(entry)))
  }

  /** Whether a course ahead asks for a better grade of this one than there is. */
  private isAskedFor({ course, status }: Attempt): boolean {
    const before = this.there.get(this.groupOf(course))
    if (status !== 'planned' || before?.status !== 'earned') return false
    const { scale } = this.catalog
    const asks = (code: CourseCode) =>
      leavesOf(ruleOf(this.catalog.maybeCourse(code)?.prerequisite ?? '')).some(
        (leaf) =>
          leaf.kind === 'course' &&
          leaf.leastGrade !== undefined &&
          this.catalog.sameAs(course).includes(leaf.course) &&
          (before.grade === null || !scale.atLeast(before.grade, leaf.leastGrade))
      )
    return [...this.input.planned, ...this.input.held].some((one) => asks(one.course))
  }

  private inOrder(list: readonly Attempt[]): Attempt[] {
    return [...list].sort(
      (a, b) =>
        STATUS_ORDER.indexOf(a.status) - STATUS_ORDER.indexOf(b.status) ||
        this.placeOf(a.term) - this.placeOf(b.term) ||
        (a.course < b.course ? -1 : a.course > b.course ? 1 : 0)
    )
  }

  private apartAmong(some: readonly Attempt[]): Apart[] {
    const standing = new Set([...this.spare, ...some.filter((one) => one.again)])
    if (!standing.size) return []
    return some.flatMap((one, i) =>
      some.slice(i + 1).flatMap((other): Apart[] => {
        if (!standing.has(one) && !standing.has(other)) return []
        const keys = [one.key, other.key] as const
        if (this.groupOf(one.course) === this.groupOf(other.course))
          return this.mayRepeat(one.course) ? [] : [{ keys, why: 'again' }]
        return this.catalog.exclusiveWith(one.course).has(other.course) ? [{ keys, why: 'exclusive' }] : []
      })
    )
  }

  private groupOf(code: CourseCode): string {
    return this.catalog.groupOf(code)
  }

  private mayRepeat(code: CourseCode): boolean {
    return this.catalog.maybeCourse(code)?.repeatable ?? false
  }

  /** What is there already and excludes a course. */
  private excluding(code: CourseCode): CourseCode | undefined {
    for (const other of this.catalog.exclusiveWith(code))
      if (this.there.has(this.groupOf(other))) return other
    return undefined
  }

  private isOver(course: CourseCode, term: TermCode | null): boolean {
    return term !== null && this.input.phaseIn?.(course, term) === 'past'
  }

  private placeOf(term: TermCode | null): number {
    return term === null ? -1 : (this.ofTerm.get(term) ?? this.ofTerm.size)
  }
}
