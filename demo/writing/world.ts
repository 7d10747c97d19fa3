/** The demo as it is drawn from its seed, before any of it is written. */
import { hashPassword } from '#server/features/accounts/password'
import { OfferBuilder, type DemoSection } from '../offer'
import { PeopleBuilder } from '../people'
import type { DemoStudent } from '../student'
import { Random } from '../random'
import { advisors, DEMO_PASSWORD, departments, holdOffice, registrar, SHARED_BY, teachers } from '../staff'
import { numbersOf } from './numbers'

const SEED = 20270409

export type World = Awaited<ReturnType<typeof worldOf>>
export async function worldOf() {
  const random = new Random(SEED)
  const offer = new OfferBuilder(random).build()
  const { students, enrolment } = new PeopleBuilder(random, offer).build()
  const takenBefore = offer.buildPast(new Random(SEED + 1))
  const taken = (section: DemoSection) => enrolment.takenIn(section)
  const accounts = accountsOf(students, offer)
  return {
    offer,
    students,
    accounts,
    numbers: numbersOf(accounts),
    seats: enrolment.seats,
    taken,
    takenBefore,
    waiting: pickWaiting(offer.sections, students, taken),
    passwordHash: await hashPassword(DEMO_PASSWORD)
  }
}

/** Students first, so that a student and their account have the same number. */
function accountsOf(students: readonly DemoStudent[], offer: OfferBuilder) {
  const signIns = new Set<string>()
  const signIn = (name: string) => {
    const base = name.toLowerCase().replace(/[^a-z]+/g, '.')
    let free = base
    for (let n = 2; signIns.has(free); n++) free = `${base}${n}`
    signIns.add(free)
    return free
  }
  return [
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
}

export const residencyOf = ({ id }: Pick<DemoStudent, 'id'>) => (id % 5 === 3 ? 'nonResident' : 'resident')

/** Generated students are spread over the advisors of their program. */
export function advisorsOf(student: DemoStudent): string[] {
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
