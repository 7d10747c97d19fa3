/** Writes the demo scenario into an empty, migrated database. */
import { paymentOf, postings, totalOf } from '#core/charges'
import { parseDayLetters } from '#core/formats'
import { minutes } from '#core/time'
import type { AsPicked } from '#core/week'
import { connect, type Database } from '#server/db/connect'
import { groupBy } from '#server/db/groupBy'
import * as t from '#server/db/schema/index'
import { hashPassword } from '#server/features/accounts/password'
import { acceptedBy, agreementOf } from './agreement'
import { courses, lists, programs } from './catalog'
import {
  BLOCKS,
  campuses,
  campusTime,
  CATEGORIES,
  DEMO_NOW,
  holidaysOf,
  openings,
  rooms,
  sessionsOf,
  SUBJECTS,
  terms,
  TOPICS,
  TRAVEL_MINUTES,
  ZONE
} from './college'
import { guidance } from './guidance'
import { holdKinds } from './holds'
import { datesOf, OfferBuilder, type DemoSection } from './offer'
import { PeopleBuilder, type DemoStudent } from './people'
import type { DemoSeat } from './enrolment'
import { chargesOf, pricesOf } from './prices'
import { Random } from './random'
import { programPolicies, reviewRules } from './reviews'
import { receiptsOf, type DemoReceipt } from './receipts'
import { advisors, DEMO_PASSWORD, departments, holdOffice, registrar, SHARED_BY, teachers } from './staff'
import { demoTalk } from './talk'

const SEED = 20270409
const ROWS_A_STATEMENT = 500

type Table = Parameters<Database['insert']>[0]

/** Position in a list, counted from 1: the id a row gets. */
function ids<T>(list: readonly T[], key: (item: T) => string): Map<string, number> {
  return new Map(list.map((item, i) => [key(item), i + 1]))
}

export async function loadDemo(
  url: string
): Promise<{ students: number; sections: number; courses: number }> {
  const { db, close } = connect(url, { connections: 2 })
  try {
    return await db.transaction(async (tx) => {
      const put = async (table: Table, rows: object[]) => {
        for (let i = 0; i < rows.length; i += ROWS_A_STATEMENT) {
          await tx.insert(table).values(rows.slice(i, i + ROWS_A_STATEMENT) as never)
        }
      }
      return write(put)
    })
  } finally {
    await close()
  }
}

async function write(put: (table: Table, rows: object[]) => Promise<void>) {
  const random = new Random(SEED)
  const offer = new OfferBuilder(random).build()
  const people = new PeopleBuilder(random, offer).build()
  const takenBefore = offer.buildPast(new Random(SEED + 1))
  const passwordHash = await hashPassword(DEMO_PASSWORD)

  const campusId = ids(campuses, (c) => c.code)
  const termId = ids(terms, (x) => x.code)
  const courseId = ids(courses, (c) => c.code)
  const subjects = Object.entries(SUBJECTS)
  const subjectId = ids(subjects, ([code]) => code)
  const categoryId = ids(CATEGORIES, (c) => c.code)
  const programId = ids(programs, (p) => p.code)
  const blockId = ids(BLOCKS, (b) => b.code)
  const buildings = [...new Map(rooms.map((r) => [`${r.campus} ${r.building}`, r])).values()]
  const buildingId = ids(buildings, (b) => `${b.campus} ${b.building}`)
  const sessions = terms.flatMap((term) =>
    sessionsOf(term).map((session) => ({ ...session, term: term.code }))
  )
  const sessionId = ids(sessions, (s) => `${s.term} ${s.code}`)

  await put(t.institution, [{ id: 1, name: 'Harrowmere College', timeZone: ZONE }])
  await put(
    t.campus,
    campuses.map((c, i) => ({ id: i + 1, institutionId: 1, ...c }))
  )
  await put(
    t.campusTravel,
    [
      [1, 2],
      [2, 1]
    ].map(([fromId, toId]) => ({ fromId, toId, minutes: TRAVEL_MINUTES }))
  )
  await put(
    t.building,
    buildings.map((b, i) => ({ id: i + 1, campusId: campusId.get(b.campus), name: b.building }))
  )
  await put(
    t.room,
    rooms.map((r, i) => ({
      id: i + 1,
      buildingId: buildingId.get(`${r.campus} ${r.building}`),
      name: r.name,
      seats: r.seats
    }))
  )
  await put(
    t.term,
    terms.map((term, i) => ({ id: i + 1, ...term, ...policyOf(term) }))
  )
  await put(
    t.session,
    sessions.map((s, i) => ({ id: i + 1, ...s, termId: termId.get(s.term) }))
  )
  await put(
    t.holiday,
    terms.flatMap((term) => holidaysOf(term).map((h) => ({ termId: termId.get(term.code), ...h })))
  )
  await put(t.campusClock, [{ id: 1, mode: 'standing', campusAt: DEMO_NOW, setAt: DEMO_NOW }])

  await put(
    t.department,
    departments.map(({ name }, i) => ({ id: i + 1, name }))
  )
  const departmentOf = (college: string) =>
    departments.findIndex((one) => one.college === college) + 1 || null
  await put(
    t.subject,
    subjects.map(([code, about], i) => ({
      id: i + 1,
      code,
      ...about,
      departmentId: departmentOf(about.college)
    }))
  )
  await put(
    t.course,
    courses.map((c, i) => ({
      id: i + 1,
      subjectId: subjectId.get(c.code.split(' ')[0]!),
      ...c,
      seasons: c.offered.seasons,
      years: c.offered.years,
      fee: feeOfCourse(c)
    }))
  )
  await put(
    t.category,
    CATEGORIES.map((c, i) => ({ id: i + 1, ...c }))
  )
  await put(
    t.courseCategory,
    courses.flatMap((c) =>
      c.categories.map((code) => ({ courseId: courseId.get(c.code), categoryId: categoryId.get(code) }))
    )
  )
  const support: [string, string][] = [
    ['CSCI 101', 'CSCI 15L'],
    ['CHEM 115', 'CHEM 015L']
  ]
  await put(t.courseRelation, [
    ...support.map(([a, b]) => ({ courseId: courseId.get(a), otherId: courseId.get(b), kind: 'supportLab' })),
    ...courses.flatMap((c) =>
      c.exclusive.map((other) => ({
        courseId: courseId.get(c.code),
        otherId: courseId.get(other),
        kind: 'exclusive'
      }))
    )
  ])

  await put(
    t.program,
    programs.map((p, i) => ({ id: i + 1, ...p }))
  )
  await put(
    t.programVersion,
    programs.map(({ limits, mayShare, conditions, entry, repeats, note, obliges = [], ...p }, i) => ({
      id: i + 1,
      review: reviewRules[p.code],
      programId: i + 1,
      ...p,
      obliges,
      rules: { limits, mayShare, conditions, entry, repeats, note }
    }))
  )
  await put(
    t.programSignOff,
    programPolicies.map(({ program, term, policy }) => ({
      programId: programId.get(program),
      termId: termId.get(term),
      policy
    }))
  )
  await put(
    t.courseList,
    lists.map(({ from, ...list }) => ({ ...list, fromText: from }))
  )

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
  const taken = (section: DemoSection) => people.enrolment.takenIn(section)
  const waiting = pickWaiting(offer.sections, people.students, taken)
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

  // Accounts: students first, so that a student and their account have the same number.
  const signIns = new Set<string>()
  const signIn = (name: string) => {
    const base = name.toLowerCase().replace(/[^a-z]+/g, '.')
    let free = base
    for (let n = 2; signIns.has(free); n++) free = `${base}${n}`
    signIns.add(free)
    return free
  }
  const students = people.students
  const accounts = [
    ...students.map((s) => ({
      name: s.name,
      signIn: signIn(s.name),
      role: 'student',
      situation: s.situation
    })),
    ...advisors.map(({ name, signIn, role, situation }) => ({ name, signIn, role, situation })),
    { ...registrar, role: 'registrar' },
    ...departments.map(({ by }, i) => ({ ...by, role: 'department', departmentId: i + 1 })),
    ...teachers.map((one) => ({
      ...one,
      role: 'instructor',
      instructorId: offer.instructors.find(({ name }) => name === one.name)!.id
    })),
    { ...holdOffice, role: 'office' }
  ]
  const accountId = ids(accounts, (a) => a.signIn)
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
  await put(
    t.advisor,
    advisors.map((a, i) => ({
      id: i + 1,
      accountId: accountId.get(a.signIn),
      ...a,
      mail: `${a.signIn}@harrowmere.example`
    }))
  )
  const advisorId = ids(advisors, (a) => a.signIn)
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
  await put(
    t.opening,
    openings.map((o) => ({
      termId: termId.get(o.term),
      title: o.title,
      opensAt: campusTime(o.at),
      standings: o.standings,
      programs: o.programs ?? [],
      blocks: []
    }))
  )

  const changedAt = campusTime('2027-04-07T18:30')
  await put(
    t.route,
    students.map((s) => ({
      id: s.id,
      studentId: s.id,
      name: s.routeName,
      chosen: true,
      changedAt,
      changedBy: s.id
    }))
  )
  await put(
    t.plannedCourse,
    students.flatMap((s) =>
      s.planned.map((p) => ({
        routeId: s.id,
        courseId: courseId.get(p.course),
        termId: termId.get(p.term),
        credits: courses[courseId.get(p.course)! - 1]!.credits
      }))
    )
  )
  const drafts = students.flatMap((s) =>
    s.drafts.map((draft, i) => ({ ...draft, student: s.id, goingWith: i === 0 }))
  )
  await put(t.agreement, acceptedBy(students, terms, termId))
  await put(
    t.draftWeek,
    drafts.map(({ name, student, goingWith }, i) => ({
      id: i + 1,
      studentId: student,
      termId: termId.get('AU27'),
      name,
      goingWith: goingWith || null
    }))
  )
  await put(
    t.pickedSection,
    drafts.flatMap((draft, i) =>
      draft.picks.flatMap(({ course, numbers, was }) =>
        numbers.map((number) => {
          const section = offer.sections.find(
            (x) => x.term === 'AU27' && x.course === course && x.number === number
          )!
          return {
            draftWeekId: i + 1,
            sectionId: section.id,
            asPicked: was && asPickedAt(section, was)
          }
        })
      )
    )
  )
  await put(
    t.keepFree,
    students.flatMap((s) =>
      s.keepFree.map(({ name, days, start, end, hard }) => ({
        studentId: s.id,
        name,
        days,
        startsMin: minutes(start),
        endsMin: minutes(end),
        hard
      }))
    )
  )
  await put(
    t.registration,
    people.enrolment.seats.map((seat) => ({
      studentId: seat.student,
      sectionId: seat.section.id,
      registeredAt: seat.at,
      byId: seat.office ? accountId.get(registrar.signIn) : seat.student,
      placedByOffice: seat.office
    }))
  )
  const receipts = receiptsOf(people.enrolment.seats)
  const byOf = ({ office, student }: DemoReceipt) => (office ? accountId.get(registrar.signIn) : student)
  await put(
    t.receipt,
    receipts.map((one) => ({
      id: one.id,
      studentId: one.student,
      termId: termId.get(one.term),
      at: one.at,
      byId: byOf(one),
      begunAt: one.at,
      endedAt: one.at
    }))
  )
  await put(
    t.receiptLine,
    receipts.flatMap(({ id, lines }) =>
      lines.map(({ course, sections }, ordinal) => ({
        receiptId: id,
        ordinal,
        courseId: courseId.get(course),
        sections,
        outcome: 'registered',
        refusals: []
      }))
    )
  )
  await put(
    t.eventLog,
    receipts.flatMap((one) =>
      one.lines.map(({ course, sections }) => ({
        at: one.at,
        accountId: byOf(one),
        studentId: one.student,
        action: 'registration.made',
        after: { term: one.term, course, sections }
      }))
    )
  )
  const charged = chargedSeats(people.enrolment.seats, students)
  // Whoever registered before the demo begins has paid, but for a few.
  const paid = charged.filter(({ student, charges }) => charges.length > 0 && student % 9 !== 0)
  await put(
    t.payment,
    paid.map(({ student, term, at, charges }, i) => ({
      id: i + 1,
      studentId: student,
      termId: termId.get(term),
      amount: totalOf(charges),
      payKey: `demo-${i + 1}`,
      at,
      state: 'taken',
      answeredAt: at,
      byId: student
    }))
  )
  await put(t.ledgerEntry, [
    ...charged.flatMap(({ student, term, at, charges }) =>
      postings(new Map(), charges, 100).map((posting) => ({
        ...posting,
        studentId: student,
        termId: termId.get(term),
        at,
        byId: student
      }))
    ),
    ...paid.map(({ student, term, at, charges }, i) => ({
      ...paymentOf(totalOf(charges)),
      studentId: student,
      termId: termId.get(term),
      at,
      paymentId: i + 1,
      byId: student
    }))
  ])
  await put(
    t.intention,
    students.flatMap((s) =>
      s.planned
        .filter((one) => (one.term === 'AU27' && s.id % 2 === 1) || (one.term === 'SP28' && s.id % 4 === 2))
        .map(({ term, course }) => ({
          studentId: s.id,
          termId: termId.get(term),
          courseId: courseId.get(course),
          at: campusTime(term === 'AU27' ? '2026-12-04T15:20' : '2027-04-06T15:20')
        }))
    )
  )
  await put(t.guidance, guidance)
  await put(t.holdKind, holdKinds)
  await put(t.waitlistPlace, [
    {
      studentId: waiting.student,
      sectionId: waiting.section.id,
      joinedAt: campusTime('2027-04-08T07:03'),
      sections: [waiting.section.code]
    }
  ])
  await put(
    t.signOff,
    students.flatMap((s) => {
      if (!s.signedOff) return []
      const { by, at, courses: signed } = s.signedOff
      const sum = signed.reduce((total, code) => total + courses[courseId.get(code)! - 1]!.credits, 0)
      const signer = advisorsOf(s).includes(by) ? by : advisorsOf(s)[0]!
      return [
        {
          studentId: s.id,
          routeId: s.id,
          termId: termId.get('AU27'),
          byId: accountId.get(signer),
          at,
          courses: signed,
          creditsLeast: Math.max(1, sum - 4),
          creditsMost: Math.min(18, sum + 3),
          conditions: []
        }
      ]
    })
  )
  await put(
    t.review,
    students.flatMap((s) =>
      s.reviewAskedAt
        ? [
            {
              studentId: s.id,
              termId: termId.get('AU27'),
              note: s.reviewNote ?? null,
              askedAt: s.reviewAskedAt
            }
          ]
        : []
    )
  )
  const talk = demoTalk((name) => accountId.get(name)!)
  await put(t.thread, talk.threads)
  await put(t.remark, talk.remarks)
  await put(t.threadRead, talk.reads)
  await put(t.agreed, talk.agreed)
  await put(t.talkRecord, talk.records)
  await put(
    t.offeredTime,
    advisors.flatMap(({ signIn, offered }) =>
      (offered?.days ?? []).map((weekday) => ({
        ...{ advisorId: advisorId.get(signIn)!, weekday, place: offered!.place, lengthMin: offered!.length },
        ...{ startsMin: minutes(offered!.start), endsMin: minutes(offered!.end) }
      }))
    )
  )
  return { students: students.length, sections: offer.sections.length, courses: courses.length }
}

function asPickedAt(
  section: DemoSection,
  { days, start, end }: { days: string; start: string; end: string }
): AsPicked {
  const { fromOn, toOn } = datesOf(section)
  const hours = { days: parseDayLetters(days)!, start: minutes(start), end: minutes(end) }
  return { left: section.capacity, meetings: [{ ...hours, from: fromOn, to: toOn, campus: section.campus }] }
}

const feeOfCourse = ({ categories }: { categories: readonly string[] }) =>
  categories.includes('lab') ? 60 : 0

/** What was charged for the seats that students hold, by student and term. */
function chargedSeats(seats: readonly DemoSeat[], students: readonly DemoStudent[]) {
  return [...groupBy(seats, (seat) => `${seat.student} ${seat.section.term}`).values()].map((own) => {
    const { student, section } = own[0]!
    const term = terms.find((one) => one.code === section.term)!
    const who = students[student - 1]!
    const prices = pricesOf(term.startsOn)
    const feeOf = (code: string) => feeOfCourse(courses.find((c) => c.code === code)!)
    return {
      student,
      term: term.code,
      at: new Date(Math.max(...own.map((seat) => seat.at.getTime()))),
      charges: prices ? chargesOf(prices, { level: who.level, residency: residencyOf(who) }, own, feeOf) : []
    }
  })
}

const residencyOf = ({ id }: Pick<DemoStudent, 'id'>) => (id % 5 === 3 ? 'nonResident' : 'resident')

/** Generated students are spread over the advisors of their program. */
function advisorsOf(student: DemoStudent): string[] {
  const shared = student.situation === null ? SHARED_BY[student.programs[0]!] : undefined
  return shared ? [shared[student.id % shared.length]!] : student.advisors
}

/** The section that one student waits for: full, in a course on her route. */
function pickWaiting(
  sections: readonly DemoSection[],
  students: readonly DemoStudent[],
  taken: (s: DemoSection) => number
) {
  const student = students.find((s) => s.name === 'Mira Sandoval')!
  const busiest = sections
    .filter(
      (s) =>
        s.term === 'AU27' &&
        s.parent === null &&
        student.planned.some((p) => p.course === s.course && p.term === 'AU27')
    )
    .filter((s) => s.course === 'SOIL 220' || s.course === 'ENDA 325')
    .sort((a, b) => taken(b) - taken(a))
  const section =
    busiest.find((s) => taken(s) > 0 && s.course === 'SOIL 220' && s.number !== '01') ?? busiest[0]!
  return { student: student.id, section }
}

/** Days before a term begins on which what is meant for it was to be handed in. */
const INTENTIONS_DAYS = 245

function policyOf({ startsOn, endsOn, season }: (typeof terms)[number]) {
  const day = (date: string, shift: number) =>
    new Date(Date.parse(date) + shift * 86_400_000).toISOString().slice(0, 10)
  return {
    addEndsAt: campusTime(`${day(startsOn, 12)}T00:00`),
    dropFreeEndsAt: campusTime(`${day(startsOn, 12)}T00:00`),
    linesCloseAt: campusTime(`${day(startsOn, 10)}T00:00`),
    offerHours: 48,
    offerHoursNear: 12,
    dropEndsAt: campusTime(`${day(endsOn, season === 'summer' ? -14 : -27)}T00:00`),
    graduateBy: campusTime(`${day(endsOn, -28)}T00:00`),
    intentionsDueAt: season === 'summer' ? null : campusTime(`${day(startsOn, -INTENTIONS_DAYS)}T00:00`),
    paymentDueOn: day(startsOn, -28),
    prices: pricesOf(startsOn),
    loadMost: season === 'summer' ? 9 : 18,
    repeatBelow: 'C',
    signOffPolicy: 'term',
    waitlistPolicy: 'offer',
    arming: true,
    agreement: agreementOf({ startsOn })
  }
}
