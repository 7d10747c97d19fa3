import { courseCode, termCode, type SectionCode } from '#core/ids'
import type { Section } from '#core/week'
import type { Reader } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import { sectionsByCode } from '#server/features/sections/sections'
import type { HeldWithParts, StudentRecord } from '#shared/record/responses'
import { draftRows, fallbackRows, heldRows, offerRows, waitingRows } from './seatQueries'

/** What of a record moves with its seats: held, waited for, offered, picked and named as fallbacks, with its sections. */
export type SeatParts = Pick<
  StudentRecord,
  'held' | 'waiting' | 'offers' | 'fallbacks' | 'drafts' | 'sections'
>

type Row<Read extends (db: Reader, wanted: number[]) => Promise<unknown[]>> = Awaited<
  ReturnType<Read>
>[number]

/** What was read of the seats of some students. */
class SeatRows {
  private constructor(
    private readonly held: Map<number, Row<typeof heldRows>[]>,
    private readonly waiting: Map<number, Row<typeof waitingRows>[]>,
    private readonly offers: Map<number, Row<typeof offerRows>[]>,
    private readonly fallbacks: Map<number, Row<typeof fallbackRows>[]>,
    private readonly drafts: Map<number, Row<typeof draftRows>[]>
  ) {}

  static async read(db: Reader, wanted: number[]): Promise<SeatRows> {
    return new SeatRows(
      groupBy(await heldRows(db, wanted), (row) => row.studentId),
      groupBy(await waitingRows(db, wanted), (row) => row.studentId),
      groupBy(await offerRows(db, wanted), (row) => row.offer.studentId),
      groupBy(await fallbackRows(db, wanted), (row) => row.studentId),
      groupBy(await draftRows(db, wanted), (row) => row.studentId)
    )
  }

  /** The sections that the parts of a student name; of seats held perhaps those of published terms alone. */
  codesOf(id: number, { published = false } = {}): SectionCode[] {
    const codes = [
      ...(this.held.get(id) ?? []).flatMap((row) => (row.published || !published ? [row.section] : [])),
      ...(this.drafts.get(id) ?? []).flatMap((row) => (row.section ? [row.section] : [])),
      ...(this.waiting.get(id) ?? []).flatMap((row) => [row.section, ...row.sections]),
      ...(this.offers.get(id) ?? []).flatMap((row) => row.offer.sections),
      ...(this.fallbacks.get(id) ?? []).flatMap((row) =>
        row.list.flatMap((one) => (one.kind === 'sections' ? one.sections : []))
      )
    ]
    return codes as SectionCode[]
  }

  heldOf(id: number): SeatParts['held'] {
    const rows = this.held.get(id) ?? []
    return rows
      .filter((row) => row.parent === null)
      .map((row): HeldWithParts => ({
        course: courseCode(row.course),
        term: termCode(row.term),
        section: row.section as SectionCode,
        credits: row.credits,
        placedByOffice: row.placedByOffice,
        campus: row.campus,
        mode: row.mode,
        categories: row.categories,
        components: rows.flatMap((other) =>
          other.parent !== null && other.parent === row.id ? [other.section as SectionCode] : []
        )
      }))
  }

  waitingOf(id: number): SeatParts['waiting'] {
    return (this.waiting.get(id) ?? []).map(({ section, sections, course, term, place, of }) => ({
      section: section as SectionCode,
      course: courseCode(course),
      term: termCode(term),
      place,
      of,
      sections: sections as SectionCode[]
    }))
  }

  offersOf(id: number): SeatParts['offers'] {
    return (this.offers.get(id) ?? []).map(({ offer, course, term }) => ({
      id: offer.id,
      course: courseCode(course),
      term: termCode(term),
      sections: offer.sections as SectionCode[],
      offeredAt: offer.offeredAt.getTime(),
      until: offer.until.getTime()
    }))
  }

  fallbacksOf(id: number): SeatParts['fallbacks'] {
    return (this.fallbacks.get(id) ?? []).map(
      ({ course, term, list, onlyWith, givingUp, credits, note }) => ({
        course: courseCode(course),
        term: termCode(term),
        list,
        onlyWith: onlyWith === null ? null : courseCode(onlyWith),
        givingUp: givingUp === null ? null : courseCode(givingUp),
        credits,
        note
      })
    )
  }

  /** The key by which a week is shown to others is the student's alone. */
  draftsOf(id: number, isOwn: boolean): SeatParts['drafts'] {
    return [...groupBy(this.drafts.get(id) ?? [], (row) => row.id).values()].map((rows) => ({
      id: rows[0]!.id,
      term: termCode(rows[0]!.term),
      name: rows[0]!.name,
      note: rows[0]!.note,
      goingWith: rows[0]!.goingWith === true,
      sections: rows.flatMap((row) => (row.section ? [row.section as SectionCode] : [])),
      exchanges: [
        ...new Set(rows.flatMap((row) => (row.exchange && row.course ? [courseCode(row.course)] : [])))
      ],
      asPicked: Object.fromEntries(
        rows.flatMap((row) => (row.section && row.asPicked ? [[row.section, row.asPicked]] : []))
      ),
      shareKey: isOwn ? rows[0]!.shareKey : null
    }))
  }
}

/** The same of students, by id. Sections that are `known` are not read again. */
export async function readSeatParts(
  db: Reader,
  wanted: number[],
  relation: StudentRecord['relation'],
  known: readonly Section[] = []
): Promise<(student: number) => SeatParts> {
  const rows = await SeatRows.read(db, wanted)
  const codes = new Set(wanted.flatMap((student) => rows.codesOf(student, { published: true })))
  for (const { code } of known) codes.delete(code)
  const sections = new Map<string, Section>(
    [...known, ...(await sectionsByCode(db, [...codes]))].map((one) => [one.code, one])
  )
  return (id) => ({
    held: rows.heldOf(id),
    waiting: rows.waitingOf(id),
    offers: rows.offersOf(id),
    fallbacks: rows.fallbacksOf(id),
    drafts: rows.draftsOf(id, relation === 'self'),
    sections: [...new Set(rows.codesOf(id))].flatMap((code) => sections.get(code) ?? [])
  })
}
