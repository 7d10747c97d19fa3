/** The run sheet: the planned courses of a term with their picked sections, each judged by the decision. */
import { asc, desc, eq, inArray, sql } from 'drizzle-orm'
import { courseCode, type CourseCode, type TermCode } from '#core/ids'
import {
  choiceOf,
  decide,
  decideDrop,
  type DropDecision,
  decideLine,
  GENERAL_REFUSALS,
  generalRefusals,
  givenBack,
  givenUpFor,
  afterDrop,
  groupLines,
  rehearse,
  type OfficeOverride,
  type RegistrationFacts
} from '#core/registration'
import { sectionsOf, type Option, type Section } from '#core/week'
import type { Instant } from '#core/time'
import type { Receipt, RunSheet, SheetLine } from '#shared/registration/responses'
import type { StudentRecord } from '#shared/record/responses'
import { waitingIn } from '#shared/registration/registering'
import { dropsOf, inOrder, preparedOf } from '#shared/registration/prepared'
import { fallbacksOf, type Fallback } from '#shared/registration/fallbacks'
import { termOf, type CatalogContext } from '#shared/catalog/context'
import { groupBy } from '#server/db/groupBy'
import { all, type Reader } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { readStatement } from '#server/features/charges/ledger'
import { readFacts } from './facts'

export async function readSheet(
  db: Reader,
  studentRecord: StudentRecord,
  catalogContext: CatalogContext,
  term: TermCode,
  now: Instant
): Promise<RunSheet> {
  const opening = studentRecord.openings.find((o) => o.term === term)
  const checkedFor = Math.max(now, opening?.opens ?? now)
  const read = await readFacts(db, studentRecord, catalogContext, term, checkedFor)
  const { facts, lines } = new SheetLines(studentRecord, catalogContext, { term, now, checkedFor }, read)
  const sum = (state: SheetLine['state']) =>
    lines.reduce((total, l) => (l.state === state ? total + l.credits : total), 0)
  return {
    term,
    opens: facts.opens,
    openingTitle: opening?.title ?? null,
    closes: facts.closes,
    checkedFor,
    general: generalRefusals({ ...facts, now }),
    lines,
    loadMost: facts.loadMost,
    credits: { registered: sum('registered'), ready: sum('ready') },
    receipts: await readReceipts(db, studentRecord.student.id, term),
    statement: seesMoney(studentRecord.relation)
      ? await readStatement(db, studentRecord.student.id, term)
      : []
  }
}

/** The lines of a run sheet: what is held, waited for, to be registered as it is picked, and what has no section yet. */
class SheetLines {
  /** As of the opening, once what is prepared to be dropped has been. */
  readonly facts: RegistrationFacts
  readonly lines: SheetLine[]
  private readonly before: RegistrationFacts
  private readonly offer: readonly Section[]
  private readonly options: ReadonlyMap<CourseCode, Option>
  private readonly decisions: ReturnType<typeof rehearse>
  private readonly groups: ReturnType<typeof groupLines>
  private readonly drops: ReadonlyMap<CourseCode, DropDecision>
  private readonly waiting: ReadonlySet<CourseCode>

  constructor(
    private readonly studentRecord: StudentRecord,
    private readonly catalogContext: CatalogContext,
    private readonly at: { term: TermCode; now: Instant; checkedFor: Instant },
    read: Awaited<ReturnType<typeof readFacts>>
  ) {
    const { term } = at
    const prepared = preparedOf(studentRecord.prepared, term)
    this.before = read.facts
    this.offer = read.offer
    this.options = read.options
    this.facts = afterDrops(this.before, dropsOf(prepared, this.before))
    const ready = readyLines(this.before, this.options.values(), prepared.order)
    this.decisions = rehearse(this.facts, ready)
    this.groups = groupLines(ready, this.facts)
    this.drops = this.decidedDrops()
    this.waiting = waitingIn(studentRecord, term)
    const courses = new Set<CourseCode>([
      ...this.drops.keys(),
      ...this.waiting,
      ...ready.map((option) => option.course),
      ...studentRecord.route.courses.filter((p) => p.term === term).map((p) => p.course)
    ])
    this.lines = [...courses].map((course) => this.line(course))
  }

  /** Of each course held, whether it may be dropped now; what an office placed, an office takes back. */
  private decidedDrops(): ReadonlyMap<CourseCode, DropDecision> {
    const { before, at, studentRecord } = this
    const placing =
      studentRecord.relation === 'registrar' ? { setAside: new Set<OfficeOverride>() } : undefined
    const held = before.heldSections.filter((section) => section.parent === null)
    return new Map(
      held.map(({ course }) => [course, decideDrop({ ...before, now: at.now, placing }, [course])[0]!])
    )
  }

  private line(course: CourseCode): SheetLine {
    const { before, facts } = this
    const about = { course, title: this.catalogContext.catalog.maybeCourse(course)?.title ?? '' }
    const waiting = placeIn(this.studentRecord, this.at.term, course)
    const none = {
      givesBack: [],
      givesUp: null,
      refusals: [],
      assumed: [],
      setAside: [],
      line: null,
      drop: null,
      fallbacks: [],
      waiting
    }
    const drop = this.drops.get(course)
    const option = this.options.get(course)
    if (drop && !(option && facts.exchanging.has(course))) {
      const sections = before.heldSections.filter((s) => s.course === course)
      const { credits } = sections.find((section) => section.parent === null)!
      return { ...about, credits, sections, state: 'registered', ...none, drop }
    }
    if (waiting && !drop) {
      const { sections } = waiting
      const credits = sections.reduce((sum, one) => sum + one.credits, 0)
      return { ...about, credits, state: 'waiting', ...none, sections }
    }
    if (option) return { ...about, ...this.readyLine(option), waiting }
    const credits = this.catalogContext.catalog.maybeCourse(course)?.credits ?? 0
    return { ...about, credits, sections: null, state: 'unsettled', ...none }
  }

  private readyLine(option: Option): Omit<SheetLine, 'course' | 'title' | 'waiting'> {
    const { course } = option
    const { facts, offer, studentRecord, catalogContext, at } = this
    const decision = this.decisions.get(course)!
    const policy = termOf(catalogContext, at.term).line
    const line = decideLine({ now: at.checkedFor, policy, waiting: this.waiting }, option, decision)
    const fallbacks = fallbacksOf(studentRecord.fallbacks, at.term, course).list
    return {
      credits: option.main.credits,
      sections: [...sectionsOf(option)],
      state: 'ready',
      givesBack: givenBack(facts, course).filter(
        (one) => one.course === course && !sectionsOf(option).some((s) => s.code === one.code)
      ),
      givesUp: givenUpFor(facts, course) ?? null,
      refusals: decision.refusals.filter((refusal) => !GENERAL_REFUSALS.has(refusal.code)),
      assumed: decision.assumed,
      setAside: decision.setAside,
      line: line.lines.length ? line : null,
      drop: null,
      fallbacks: triedAfter(facts, offer, fallbacks, this.boundTo(course))
    }
  }

  /** A line that goes through only together with others is tried as it was picked, and nothing after it. */
  private boundTo(course: CourseCode): CourseCode | undefined {
    const group = this.groups.find((group) => group.some((one) => one.course === course))!
    return group.find((one) => one.course !== course)?.course
  }
}

/** The facts once courses have been dropped, as far as the decision lets them go. */
function afterDrops(facts: RegistrationFacts, drops: readonly CourseCode[]): RegistrationFacts {
  const going = decideDrop(facts, drops).filter((one) => !one.refusals.length)
  const courses = going.map((one) => one.course)
  return courses.length ? afterDrop(facts, courses) : facts
}

/** What is to be registered or exchanged, in the student's order. */
function readyLines(
  { heldSections, exchanging }: Pick<RegistrationFacts, 'heldSections' | 'exchanging'>,
  options: Iterable<Option>,
  order: readonly CourseCode[]
): Option[] {
  const held = new Set(heldSections.map((one) => one.course))
  return inOrder(
    [...options].filter(({ course }) => !held.has(course) || exchanging.has(course)),
    order
  )
}

/** Entry by entry, an account is its student's and the registrar's; what is owed in all stands in the record. */
const seesMoney = (relation: StudentRecord['relation']) => relation === 'self' || relation === 'registrar'

/** What is tried after a line, each judged as if it stood alone; nothing is where the line is bound to another. */
function triedAfter(
  facts: RegistrationFacts,
  offer: readonly Section[],
  list: readonly Fallback[],
  boundTo: CourseCode | undefined
): SheetLine['fallbacks'] {
  return list.map((fallback) => {
    const option = fallback.kind === 'sections' ? choiceOf(offer, fallback.sections) : undefined
    const own = option ? decide(facts, [option])[0]!.refusals : []
    const refusals = boundTo ? [...own, { code: 'together' as const, with: boundTo }] : own
    return {
      fallback,
      sections: option ? [...sectionsOf(option)] : [],
      refusals: refusals.filter((one) => !GENERAL_REFUSALS.has(one.code))
    }
  })
}

/** Where a student stands in a line of a course: the place furthest back, where it is in several lines. */
function placeIn(
  { waiting, sections }: StudentRecord,
  term: TermCode,
  course: CourseCode
): SheetLine['waiting'] {
  const places = waiting.filter((one) => one.term === term && one.course === course)
  const last = places.sort((a, b) => b.place - a.place)[0]
  if (!last) return null
  const codes = new Set<string>(last.sections)
  return { sections: sections.filter((one) => codes.has(one.code)), place: last.place, of: last.of }
}

/** Receipts of a term, the newest first. */
export async function readReceipts(db: Reader, student: number, term: TermCode): Promise<Receipt[]> {
  const receipts = await db
    .select({
      id: t.receipt.id,
      at: t.receipt.at,
      by: t.account.name,
      whole: t.receipt.whole,
      armed: t.receipt.armed,
      consent: t.receipt.consent,
      setAside: t.receipt.setAside,
      endedAt: t.receipt.endedAt
    })
    .from(t.receipt)
    .innerJoin(t.term, eq(t.term.id, t.receipt.termId))
    .leftJoin(t.account, eq(t.account.id, t.receipt.byId))
    .where(all(eq(t.receipt.studentId, student), eq(t.term.code, term)))
    .orderBy(desc(t.receipt.id))
  if (!receipts.length) return []
  const rows = await db
    .select({
      line: t.receiptLine,
      course: t.course.code,
      insteadOf: sql<string | null>`(select c.code from course c where c.id = receipt_line.instead_of_id)`
    })
    .from(t.receiptLine)
    .innerJoin(t.course, eq(t.course.id, t.receiptLine.courseId))
    .where(
      inArray(
        t.receiptLine.receiptId,
        receipts.map((r) => r.id)
      )
    )
    .orderBy(asc(t.receiptLine.ordinal))
  const lines = groupBy(rows, (row) => row.line.receiptId)
  return receipts.map(({ id, at, by, whole, armed, consent, setAside, endedAt }) => ({
    id,
    whole,
    armed,
    at: at.getTime(),
    by,
    consent,
    setAside,
    ended: endedAt !== null,
    lines: (lines.get(id) ?? []).map(({ line, course, insteadOf }) => ({
      course: courseCode(course),
      insteadOf: insteadOf === null ? null : courseCode(insteadOf),
      action: line.action,
      sections: line.sections,
      gaveBack: line.gaveBack,
      outcome: line.outcome,
      fallback: line.fallback,
      credits: line.credits,
      place: line.place,
      mark: line.mark,
      refusals: line.refusals
    }))
  }))
}
