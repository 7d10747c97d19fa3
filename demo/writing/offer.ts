/** The published terms' sections, with who teaches them, when and where. */
import * as t from '#server/db/schema/index'
import { BLOCKS, TOPICS } from '../college'
import { datesOf } from '../offer'
import type { World } from './world'
import type { Put } from './numbers'

export async function writeOffer(put: Put, world: World) {
  const { offer, taken, takenBefore, waiting } = world
  const { courseId, termId, sessionId, campusId, blockId } = world.numbers
  await put(
    t.instructor,
    offer.instructors.map(({ id, name }) => ({
      id,
      name,
      mail: `${name.toLowerCase().replace(/[^a-z]+/g, '.')}@harrowmere.example`
    }))
  )
  await put(
    t.block,
    BLOCKS.map((b, i) => ({ id: i + 1, ...b, programCode: 'GEOF', yearLevel: 2 }))
  )
  await put(
    t.section,
    offer.sections.map((s) => ({
      ...s,
      courseId: courseId.get(s.course),
      termId: termId.get(s.term),
      sessionId: sessionId.get(`${s.term} ${s.session}`),
      parentId: s.parent,
      campusId: campusId.get(s.campus),
      topic: s.parent === null ? (TOPICS[s.course]?.[Number(s.number) - 1] ?? null) : null,
      blockId: s.block ? blockId.get(s.block) : null,
      capacity: s.code === waiting.section.code ? taken(s) : s.capacity,
      taken: taken(s),
      takenFormerly: takenBefore.get(s.id) ?? 0,
      waiting: s.code === waiting.section.code ? 1 : 0,
      fee: 0
    }))
  )
  await put(
    t.sectionInstructor,
    offer.sections.map((s) => ({ sectionId: s.id, instructorId: s.instructor }))
  )
  await put(
    t.reservedSeats,
    offer.sections.flatMap(({ id, kept }) =>
      kept ? [{ sectionId: id, programCode: kept.program, seats: kept.seats }] : []
    )
  )
  await put(
    t.meeting,
    offer.sections.flatMap((s) =>
      s.meetings.map((m) => ({
        sectionId: s.id,
        days: m.days,
        startsMin: m.start,
        endsMin: m.end,
        ...(m.on ? { fromOn: m.on, toOn: m.on } : datesOf(s)),
        roomId: m.room === null ? null : m.room + 1
      }))
    )
  )
}
