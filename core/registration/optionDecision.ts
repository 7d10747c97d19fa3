import type { Refusal } from '../findings'
import type { CourseCode } from '../ids'
import type { RuleLeaf } from '../requisites'
import { asOfTerm } from '../route'
import {
  barriersOf,
  clashesWith,
  keptForOthers,
  permits,
  sectionsOf,
  type Option,
  type PermissionKind,
  type Section
} from '../week'
import { attemptsWith, courseRefusals } from './courseRefusals'
import { decideDrop } from './drop'
import type { RegistrationFacts } from './facts'
import { isSignedOff, judgeConditions, standingSignOff, type SignOff } from './signOff'
import { afterGroup, givenUpFor, goneWith } from './step'

const creditsIn = (sections: readonly Section[]) => sections.reduce((sum, one) => sum + one.credits, 0)

/** Whether one option of a group may be taken, with all reasons against it in the order in which they are said. */
export class OptionDecision {
  private readonly refusals: Refusal[] = []
  private readonly assumed: RuleLeaf[] = []
  private readonly setAside = new Set<PermissionKind>()
  private readonly sections: readonly Section[]
  private readonly others: readonly Option[]
  /** Courses of which nothing of before is held any more. */
  private readonly gone: ReadonlySet<CourseCode>
  private readonly staying: readonly Section[]
  /** What stands beside the option in the week. */
  private readonly week: readonly Section[]
  private readonly signed: SignOff | null

  constructor(
    private readonly facts: RegistrationFacts,
    private readonly option: Option,
    private readonly group: readonly Option[]
  ) {
    const { policy, given } = facts.signOff
    this.sections = sectionsOf(option)
    this.others = group.filter((other) => other !== option)
    this.gone = goneWith(facts, group)
    this.staying = facts.heldSections.filter((section) => !this.gone.has(section.course))
    this.week = [...this.staying, ...this.others.flatMap(sectionsOf)]
    this.signed = policy === 'none' ? null : standingSignOff(given, facts.now)
  }

  judge(): { refusals: Refusal[]; assumed: RuleLeaf[]; setAside: Set<PermissionKind> } {
    const final = this.final()
    if (final) this.refusals.push(final)
    else {
      this.partner()
      this.session()
      this.signOff()
      this.eachSection()
      this.course()
      this.givenUp()
      this.clashes()
      this.load()
      this.conditions()
    }
    const { refusals, assumed, setAside } = this
    return { refusals, assumed, setAside }
  }

  /** Refuses, unless a permission of one of the sections sets just this rule aside. */
  private refuse(refusal: Refusal, kind: PermissionKind, at: readonly Section[] = this.sections): void {
    if (permits(this.facts.permissions, kind, ...at.map((section) => section.code))) this.setAside.add(kind)
    else this.refusals.push(refusal)
  }

  /** A reason beside which no other is worth a word. */
  private final(): Refusal | undefined {
    const { facts, option, sections } = this
    const cancelled = sections.find((section) => section.cancelled)
    if (cancelled) return { code: 'cancelled', section: cancelled.code }
    const mine = this.mine()
    if (!mine.size) return undefined
    const isAnother =
      mine.size !== sections.length || sections.some(({ code, credits }) => mine.get(code) !== credits)
    if (!isAnother || !facts.exchanging.has(option.course)) return { code: 'alreadyRegistered' }
    const isPlaced = facts.held.some(
      (seat) => seat.term === facts.term.code && seat.course === option.course && seat.placedByOffice
    )
    return isPlaced && !facts.placing ? { code: 'placed' } : undefined
  }

  /** Sections of the course that are held already, with their credits. */
  private mine(): ReadonlyMap<string, number> {
    return new Map(
      this.facts.heldSections.flatMap((one) =>
        one.course === this.option.course ? [[one.code, one.credits] as const] : []
      )
    )
  }

  private partner(): void {
    const partner = this.facts.onlyWith.get(this.option.course)
    if (!partner || this.facts.heldSections.some((section) => section.course === partner)) return
    if (!this.group.some((other) => other.course === partner))
      this.refusals.push({ code: 'together', with: partner })
  }

  private session(): void {
    const { main } = this.option
    const { now, closes, sessions } = this.facts
    const addEnds = sessions.get(main.session)?.addEnds
    if (addEnds !== undefined && now >= addEnds && now < closes)
      this.refuse({ code: 'sessionClosed', section: main.code, since: addEnds }, 'late', [main])
  }

  private signOff(): void {
    const { policy } = this.facts.signOff
    const isBound = policy === 'strict' || policy === 'anew'
    if (isBound && this.signed && !isSignedOff(this.signed, this.option.course))
      this.refusals.push({ code: 'outsideSignOff' })
  }

  /** Components that belong to the option, who may be in each section, and whether it has a seat for the student. */
  private eachSection(): void {
    const { facts, option } = this
    const chosen = new Set(option.components.map((section) => section.kind))
    for (const kind of facts.componentsOf(option.main.code))
      if (!chosen.has(kind)) this.refusals.push({ code: 'componentMissing', kind })
    const mine = this.mine()
    for (const section of this.sections) {
      if (mine.has(section.code)) continue
      for (const barrier of barriersOf(section, { ...facts.student, permissions: new Map() })) {
        if (barrier.code === 'officeOnly') {
          if (!facts.placing) this.refusals.push(barrier)
        } else this.refuse(barrier, barrier.code === 'permission' ? 'consent' : 'restriction', [section])
      }
      const seats = seatRefusal(facts, section)
      if (seats) this.refuse(seats, seats.code, [section])
    }
  }

  private course(): void {
    const { facts, option, others, gone, sections } = this
    const consented = permits(facts.permissions, 'consent', ...sections.map((section) => section.code))
    const asked = courseRefusals(facts, option.course, { others, gone, consented, main: option.main })
    this.assumed.push(...asked.assumed)
    for (const refusal of asked.refusals) {
      if (refusal.code === 'prerequisite' || refusal.code === 'corequisite')
        this.refuse(refusal, refusal.code)
      else this.refusals.push(refusal)
    }
  }

  /** Why the course that is given up for the option cannot be, once its group has gone through. */
  private givenUp(): void {
    const { facts, group } = this
    const other = givenUpFor(facts, this.option.course)
    if (other === undefined || group.some((one) => one.course === other)) return
    const taken = afterGroup({ ...facts, givingUp: new Map() }, group)
    const all = new Set(group.flatMap((one) => givenUpFor(facts, one.course) ?? []))
    const decision = decideDrop(taken, [...all]).find((one) => one.course === other)!
    for (const why of decision.refusals) this.refusals.push({ code: 'notGivenUp', course: other, why })
  }

  private clashes(): void {
    const { option, sections, week, facts } = this
    const found = clashesWith({ course: option.course, sections }, week, facts.holidays)
    // Two sections clash: a permission of either lets both stand, and one of a section its components too.
    for (const { own, with: other, clash } of found)
      this.refuse({ code: 'clash', with: other.course, clash }, 'clash', [own, other, option.main])
  }

  private load(): void {
    const { facts, signed } = this
    const credits = creditsIn(this.staying) + creditsIn(this.group.flatMap(sectionsOf))
    // What is held already was let in: an exchange that adds nothing stays within what was signed off.
    const mostSigned = signed && credits > creditsIn(facts.heldSections) ? signed.creditsMost : Infinity
    if (credits > facts.loadMost) this.refuse({ code: 'load', credits, most: facts.loadMost }, 'load')
    else if (credits > mostSigned)
      this.refuse({ code: 'conditionCredits', credits, most: mostSigned }, 'load')
  }

  private conditions(): void {
    const { facts, others, gone, signed } = this
    if (!signed) return
    const beside = new Set(this.week.map((section) => section.course))
    const judged = judgeConditions(signed.conditions, this.option.course, beside, () =>
      asOfTerm(facts.term.code, facts.terms, attemptsWith(facts, others, gone), facts.student, facts.catalog)
    )
    this.refusals.push(...judged.refusals)
    this.assumed.push(...judged.assumed)
  }
}

/** Why the seats of a section leave none for this student; undefined where one is free for them. */
export function seatRefusal(
  { student, block }: Pick<RegistrationFacts, 'student' | 'block'>,
  section: Section
): Extract<Refusal, { code: 'full' | 'reserved' }> | undefined {
  const { code, kind, capacity, waiting } = section
  const left = capacity - section.taken
  const kept = keptForOthers(section, { programs: student.programs, block })
  if (left <= 0) return { code: 'full', section: code, kind, capacity, waiting }
  return left <= kept ? { code: 'reserved', section: code, kind, left } : undefined
}
