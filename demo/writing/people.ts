/** Everybody who has to do with the college, what students have taken and what holds them, and who advises whom. */
import * as t from '#server/db/schema/index'
import { campusTime, openings } from '../college'
import { advisors } from '../staff'
import type { Put } from './numbers'
import { advisorsOf, residencyOf, type World } from './world'

export async function writePeople(put: Put, world: World) {
  await writeStudents(put, world)
  await writeRecords(put, world)
  await writeAdvisors(put, world)
  await put(
    t.opening,
    openings.map((o) => ({
      termId: world.numbers.termId.get(o.term),
      title: o.title,
      opensAt: campusTime(o.at),
      standings: o.standings,
      programs: o.programs ?? [],
      blocks: []
    }))
  )
}

/** The accounts of everybody, and students with their programs. */
async function writeStudents(put: Put, { students, accounts, passwordHash, numbers }: World) {
  const { campusId, blockId, termId, programId } = numbers
  await put(
    t.account,
    accounts.map((a, i) => ({ id: i + 1, ...a, passwordHash, mail: `${a.signIn}@harrowmere.example` }))
  )
  await put(
    t.student,
    students.map((s) => ({
      ...s,
      accountId: s.id,
      homeCampusId: campusId.get(s.campus),
      blockId: s.block ? blockId.get(s.block) : null,
      residency: residencyOf(s),
      aid: s.attendance === 'fullTime' && s.id % 3 === 0 ? 'receiving' : 'none',
      aimTermId: s.aim ? termId.get(s.aim) : null
    }))
  )
  await put(
    t.studentProgram,
    students.flatMap((s) =>
      s.programs.map((code, i) => ({
        studentId: s.id,
        programVersionId: programId.get(code),
        ordinal: i,
        confirmed: s.confirmed ? 'confirmed' : 'open',
        saidAt: s.confirmed ? campusTime('2026-09-02T10:00') : null
      }))
    )
  )
}

async function writeRecords(put: Put, { students, numbers: { campusId, courseId, termId } }: World) {
  await put(
    t.recordCourse,
    students.flatMap((s) =>
      s.record.map((r) => ({
        ...r,
        studentId: s.id,
        courseId: courseId.get(r.course),
        termId: r.term ? termId.get(r.term) : null,
        campusId: r.origin === 'here' ? campusId.get(s.campus) : null,
        mode: r.origin === 'here' ? (s.attendance === 'distance' ? 'online' : 'inPerson') : null
      }))
    )
  )
  await put(
    t.testScore,
    students.flatMap((s) =>
      s.math === null ? [] : [{ studentId: s.id, test: 'MATH', score: s.math, takenOn: '2025-06-14' }]
    )
  )
  await put(
    t.hold,
    students.flatMap((s) =>
      s.holds.map((h) => ({
        ...h,
        studentId: s.id,
        stopsRegistration: h.stops,
        stopsTranscript: h.amount !== null,
        placedAt: h.at
      }))
    )
  )
}

async function writeAdvisors(put: Put, { students, numbers: { accountId, advisorId } }: World) {
  await put(
    t.advisor,
    advisors.map((a, i) => ({
      id: i + 1,
      accountId: accountId.get(a.signIn),
      ...a,
      mail: `${a.signIn}@harrowmere.example`
    }))
  )
  await put(
    t.advising,
    students.flatMap((s) =>
      advisorsOf(s).map((who) => ({
        advisorId: advisorId.get(who),
        studentId: s.id,
        purpose: who === 'nell.fairweather' ? 'support' : 'program',
        sinceOn: '2026-08-24'
      }))
    )
  )
}
