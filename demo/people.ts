/** Students: 300 from the seeded generator, and those written by hand. */
import type { Standing } from '#core/requisites'
import { catalog, programs, type DemoProgram } from './catalog'
import { campusTime, terms } from './college'
import { Enrolment } from './enrolment'
import type { OfferBuilder } from './offer'
import { COHORT_COURSES } from './offer'
import type { Random } from './random'
import { FAMILY_NAMES, GIVEN_NAMES } from './names'
import { advisors } from './staff'
import type { DemoStudent } from './student'
import { writtenByHand } from './telling'
import { gradeOf, SHARES } from '#server/gateways/gradebook'

const REGULAR = terms.filter((t) => t.season !== 'summer')
const NOW = REGULAR.findIndex((t) => t.code === 'SP27')
const GENERATED = 300

const programOf = (code: string): DemoProgram => programs.find((p) => p.code === code)!

export class PeopleBuilder {
  readonly students: DemoStudent[] = []
  readonly enrolment: Enrolment

  constructor(
    private readonly random: Random,
    offer: OfferBuilder
  ) {
    this.enrolment = new Enrolment(offer.sections)
  }

  build(): this {
    writtenByHand(this)
    for (let i = 0; i < GENERATED; i++) this.generated(i)
    this.add({
      name: 'Maren Tolliver',
      situation: 'Begins in the autumn; nothing is planned yet.',
      programs: ['GEOF', 'ETHC'],
      campus: 'HARBOUR'
    })
    return this
  }

  add(over: Partial<DemoStudent> & { name: string; programs: string[] }): DemoStudent {
    const id = this.students.length + 1
    const student: DemoStudent = {
      id,
      situation: null,
      number: `H${204_000 + id * 7}`,
      standing: 'freshman',
      level: 'undergraduate',
      campus: 'HILL',
      block: null,
      attendance: 'fullTime',
      confirmed: true,
      math: 72,
      record: [],
      planned: [],
      routeName: 'Main route',
      reviewAskedAt: null,
      drafts: [],
      keepFree: [],
      signedOff: null,
      holds: [],
      advisors: [advisors.find((a) => a.programs.includes(over.programs[0]!))!.signIn],
      aim: null,
      ...over
    }
    this.students.push(student)
    return student
  }

  /** Courses of the suggested sequence, term after term; what is under way is enrolled in sections. */
  private follow(
    student: DemoStudent,
    program: DemoProgram,
    started: number,
    until = program.suggested.length
  ): void {
    for (let step = 0; step < until; step++) {
      const term = REGULAR[started + step]
      if (!term) return
      for (const code of program.suggested[step] ?? []) {
        if (typeof code !== 'string') continue
        const course = catalog.course(code)
        if (started + step < NOW) {
          student.record.push({
            course: code,
            term: term.code,
            credits: course.credits,
            grade: this.grade(),
            origin: 'here'
          })
        } else if (started + step === NOW) {
          if (this.enrolment.enrol(student, code, term.code, campusTime('2026-11-16T09:12'))) {
            student.record.push({
              course: code,
              term: term.code,
              credits: course.credits,
              grade: null,
              origin: 'here'
            })
          }
        } else {
          student.planned.push({ course: code, term: term.code })
        }
      }
    }
  }

  private grade(): string {
    return gradeOf(this.random.below(SHARES))
  }

  private generated(i: number): void {
    const name = `${GIVEN_NAMES[(i * 7) % GIVEN_NAMES.length]} ${FAMILY_NAMES[(i * 11 + Math.floor(i / FAMILY_NAMES.length)) % FAMILY_NAMES.length]}`
    const roll = this.random.next()
    const started = NOW - this.random.pick([1, 1, 3, 3, 5, 5, 7])
    const code = roll < 0.22 && started > NOW - 4 ? 'GEOF' : roll < 0.62 ? 'ENVD' : 'HERI'
    const program = programOf(code)
    const standing: Standing = started === NOW - 1 ? 'sophomore' : started === NOW - 3 ? 'junior' : 'senior'
    const student = this.add({
      name,
      programs: [
        code,
        ...(program.obliges ?? []),
        ...(code === 'ENVD' && this.random.chance(0.15) ? ['STAM'] : [])
      ],
      standing,
      campus: code === 'GEOF' ? 'HARBOUR' : 'HILL',
      attendance: this.random.chance(0.12) ? 'partTime' : 'fullTime',
      block: code === 'GEOF' && started === NOW - 1 ? this.random.pick(['heron', 'kestrel', 'plover']) : null,
      confirmed: this.random.chance(0.8),
      math: 60 + this.random.below(35)
    })
    this.follow(student, program, started)
    const planned = this.random.next()
    if (planned < 0.15) student.planned = []
    else if (planned < 0.4) student.planned = student.planned.filter((p) => p.term === 'AU27')
    const coming = student.planned.filter((p) => p.term === 'AU27').map((p) => p.course)
    if (coming.length && this.random.chance(0.5))
      student.signedOff = { by: student.advisors[0]!, at: campusTime('2027-04-02T14:20'), courses: coming }
    else if (coming.length && this.random.chance(0.3))
      student.reviewAskedAt = campusTime(`2027-04-0${3 + this.random.below(6)}T11:05`)
    if (standing === 'senior' && student.signedOff) {
      for (const course of coming)
        this.enrolment.enrol(student, course, 'AU27', campusTime('2027-04-08T07:01'))
    }
    if (student.block) {
      for (const course of COHORT_COURSES)
        this.enrolment.enrol(student, course, 'AU27', campusTime('2027-04-06T15:00'), { office: true })
    }
    if (this.random.chance(0.04)) {
      student.holds.push({
        title: 'Unpaid parking fine',
        office: 'Campus safety',
        howToLift: 'Pay at the Slate desk or online; lifted the same day.',
        amount: 25,
        stops: this.random.chance(0.5),
        at: campusTime('2027-03-20T10:00')
      })
    }
  }

  /** @throws where a section of a course has no seat left. */
  underWay(student: DemoStudent, ...codes: string[]): void {
    for (const code of codes) {
      if (!this.enrolment.enrol(student, code, 'SP27', campusTime('2026-11-16T09:12')))
        throw new Error(`no seat for ${student.name} in ${code}`)
      student.record.push({
        course: code,
        term: 'SP27',
        credits: catalog.course(code).credits,
        grade: null,
        origin: 'here'
      })
    }
  }
}
