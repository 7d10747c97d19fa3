import { courseCode, termCode, type SectionCode } from '#core/ids'
import type { Section } from '#core/week'
import type { Reader } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import { sectionsByCode } from '#server/features/sections/sections'
import type { HeldWithParts, StudentRecord } from '#shared/record/responses'
import { draftRows, fallbackRows, heldRows, offerRows, waitingRows } from './queries'

/** What of a record moves with its seats: held, waited for, offered, picked and named as fallbacks, with its sections. */
export type SeatParts = Pick<
  StudentRecord,
  'held' | 'waiting' | 'offers' | 'fallbacks' | 'drafts' | 'sections'
>

/** The same of students, by id. Sections that are `known` are not read again. */
export async function readSeatParts(
  db: Reader,
  wanted: number[],
  relation: StudentRecord['relation'],
  known: readonly Section[] = []
): Promise<(student: number) => SeatParts> {
  const held = groupBy(await heldRows(db, wanted), (row) => row.studentId)
  const waiting = groupBy(await waitingRows(db, wanted), (row) => row.studentId)
  const offers = groupBy(await offerRows(db, wanted), (row) => row.offer.studentId)
  const fallbacks = groupBy(await fallbackRows(db, wanted), (row) => row.studentId)
  const drafts = groupBy(await draftRows(db, wanted), (row) => row.studentId)
  const codes = new Set<SectionCode>()
  for (const rows of held.values())
    for (const row of rows) if (row.published) codes.add(row.section as SectionCode)
  for (const rows of drafts.values())
    for (const row of rows) if (row.section) codes.add(row.section as SectionCode)
  const linesOf = (student: number): SectionCode[] => [
    ...(waiting.get(student) ?? []).flatMap((row) => [row.section, ...row.sections] as SectionCode[]),
    ...(offers.get(student) ?? []).flatMap((row) => row.offer.sections as SectionCode[]),
    ...(fallbacks.get(student) ?? []).flatMap((row) =>
      row.list.flatMap((one) => (one.kind === 'sections' ? one.sections : []))
    )
  ]
  for (const student of wanted) for (const code of linesOf(student)) codes.add(code)
  for (const { code } of known) codes.delete(code)
  const sections = new Map<string, Section>(
    [...known, ...(await sectionsByCode(db, [...codes]))].map((one) => [one.code, one])
  )

  return (id) => {
    const seats = (held.get(id) ?? []).filter((row) => row.parent === null)
    const mine = new Set<string>()
    for (const row of held.get(id) ?? []) mine.add(row.section)
    for (const row of drafts.get(id) ?? []) if (row.section) mine.add(row.section)
    for (const code of linesOf(id)) mine.add(code)
    return {
      held: seats.map((row): HeldWithParts => ({
        course: courseCode(row.course),
        term: termCode(row.term),
        section: row.section as SectionCode,
        credits: row.credits,
        placedByOffice: row.placedByOffice,
        campus: row.campus,
        mode: row.mode,
        categories: row.categories,
        components: (held.get(id) ?? []).flatMap((other) =>
          other.parent !== null && other.parent === row.id ? [other.section as SectionCode] : []
        )
      })),
      waiting: (waiting.get(id) ?? []).map(({ section, sections, course, term, place, of }) => ({
        section: section as SectionCode,
        course: courseCode(course),
        term: termCode(term),
        place,
        of,
        sections: sections as SectionCode[]
      })),
      offers: (offers.get(id) ?? []).map(({ offer, course, term }) => ({
        id: offer.id,
        course: courseCode(course),
        term: termCode(term),
        sections: offer.sections as SectionCode[],
        offeredAt: offer.offeredAt.getTime(),
        until: offer.until.getTime()
      })),
      fallbacks: (fallbacks.get(id) ?? []).map(
        ({ course, term, list, onlyWith, givingUp, credits, note }) => ({
          course: courseCode(course),
          term: termCode(term),
          list,
          onlyWith: onlyWith === null ? null : courseCode(onlyWith),
          givingUp: givingUp === null ? null : courseCode(givingUp),
          credits,
          note
        })
      ),
      drafts: [...groupBy(drafts.get(id) ?? [], (row) => row.id).values()].map((rows) => ({
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
        shareKey: relation === 'self' ? rows[0]!.shareKey : null
      })),
      sections: [...mine].flatMap((code) => sections.get(code) ?? [])
    }
  }
}
