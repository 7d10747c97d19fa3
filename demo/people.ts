/** Students: 300 from the seeded generator, and a dozen and more written by hand, each in a telling situation. */
import { COMMON_SCALE } from '#core/grades'
import type { Standing } from '#core/requisites'
import { catalog, programs, type DemoProgram } from './catalog'
import { campusTime, terms } from './college'
import { Enrolment } from './enrolment'
import type { OfferBuilder } from './offer'
import { COHORT_COURSES } from './offer'
import type { Random } from './random'
import { advisors } from './staff'
import { gradeOf, SHARES } from '#server/gateways/gradebook'

export interface DemoRecord {
  course: string
  term: string | null
  credits: number
  grade: string | null
  origin: 'here' | 'transfer' | 'test'
}

export interface DemoPick {
  course: string
  numbers: string[]
  /** When its first section met at the time it was picked, where that has changed since. */
  was?: { days: string; start: string; end: string }
}

export interface DemoStudent {
  id: number
  name: string
  situation: string | null
  number: string
  standing: Standing
  level: 'undergraduate' | 'graduate'
  campus: string
  block: string | null
  attendance: 'fullTime' | 'partTime' | 'evening' | 'distance'
  programs: string[]
  confirmed: boolean
  math: number | null
  record: DemoRecord[]
  planned: { course: string; term: string; note?: string }[]
  routeName: string
  reviewAskedAt: Date | null
  reviewNote?: string
  /** Draft weeks of Autumn 2027; the first is gone with. */
  drafts: { name: string; picks: DemoPick[] }[]
  keepFree: { name: string; days: string; start: string; end: string; hard: boolean }[]
  signedOff: { by: string; at: Date; courses: string[] } | null
  holds: {
    title: string
    office: string
    howToLift: string
    amount: number | null
    stops: boolean
    at: Date
  }[]
  advisors: string[]
  aim: string | null
}

const GIVEN = [
  'Alba',
  'Anouk',
  'Bastian',
  'Beatrix',
  'Caspian',
  'Cleo',
  'Dagny',
  'Dorian',
  'Elowen',
  'Emrys',
  'Farid',
  'Freya',
  'Gideon',
  'Hollis',
  'Ines',
  'Isolde',
  'Jarek',
  'Juno',
  'Kenji',
  'Lark',
  'Leonie',
  'Magnus',
  'Mei',
  'Nadia',
  'Nils',
  'Odette',
  'Oskar',
  'Paloma',
  'Quentin',
  'Rafael',
  'Rowan',
  'Samira',
  'Sorrel',
  'Tariq',
  'Thea',
  'Ulla',
  'Viggo',
  'Willa',
  'Xenia',
  'Zora'
]
const FAMILY = [
  'Abernethy',
  'Almgren',
  'Bexley',
  'Birchwood',
  'Calloway',
  'Castellan',
  'Drummond',
  'Eklund',
  'Fairbairn',
  'Galloway',
  'Hartigan',
  'Ibarra',
  'Jessop',
  'Kowal',
  'Lindgren',
  'Moreau',
  'Nakata',
  'Oyelaran',
  'Pemberton',
  'Quigley',
  'Rosethorn',
  'Sandel',
  'Tremaine',
  'Underhill',
  'Vasko',
  'Wainwright',
  'Yardley',
  'Zielin',
  'Mbeki-Stone',
  'Haverford'
]

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
    this.writtenByHand()
    for (let i = 0; i < GENERATED; i++) this.generated(i)
    this.add({
      name: 'Maren Tolliver',
      situation: 'Begins in the autumn; nothing is planned yet.',
      programs: ['GEOF', 'ETHC'],
      campus: 'HARBOUR'
    })
    return this
  }

  private add(over: Partial<DemoStudent> & { name: string; programs: string[] }): DemoStudent {
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
    const name = `${GIVEN[(i * 7) % GIVEN.length]} ${FAMILY[(i * 11 + Math.floor(i / FAMILY.length)) % FAMILY.length]}`
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

  private done(list: string, term: string): DemoRecord[] {
    return list.split(', ').map((item) => {
      const [subject, number, grade] = item.split(' ')
      const code = `${subject} ${number}`
      COMMON_SCALE.meaning(grade!)
      return { course: code, term, credits: catalog.course(code).credits, grade: grade!, origin: 'here' }
    })
  }

  private underWay(student: DemoStudent, ...codes: string[]): void {
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

  private writtenByHand(): void {
    const foundations = () => [
      ...this.done('ENDA 110 B+, ENVI 101 A, MATH 125 B, WRIT 101 A', 'AU25'),
      ...this.done('ENDA 120 B, CSCI 101 A-, STAT 110 B, CHEM 115 B', 'SP26'),
      ...this.done('ENDA 205 B, ENVI 150 C+, WRIT 102 B+, HERI 105 A-, ECON 101 B, ARTS 120 A', 'AU26')
    ]
    const plan = (text: string) =>
      text.split('; ').flatMap((part) => {
        const [term, list] = part.split(': ')
        return list!.split(', ').map((course) => ({ course, term: term! }))
      })

    const imke = this.add({
      name: 'Imke Varga',
      situation: 'On track. Opening on Monday, sign-off asked for, one finding ahead.',
      programs: ['ENVD', 'STAM'],
      standing: 'junior',
      record: foundations(),
      planned: plan(
        'AU27: ENDA 310, ENDA 325, SOIL 220, MATH 231, WRIT 215; SP28: ENDA 360, HYDR 330, HERI 210, MUSI 102; SU28: FELD 390; AU28: ENDA 410, ENDA 480; SP29: ENDA 490'
      ),
      routeName: 'Hydrology lean',
      reviewAskedAt: campusTime('2027-04-08T16:10'),
      reviewNote: 'Is 17 credits too much beside 12 hours of coaching? I can move MATH 231.',
      drafts: [
        {
          name: 'Fridays off',
          picks: [
            { course: 'ENDA 310', numbers: ['01'] },
            { course: 'SOIL 220', numbers: ['01', '01A'] },
            { course: 'MATH 231', numbers: ['01'] },
            { course: 'WRIT 215', numbers: ['01'] }
          ]
        },
        {
          name: 'Late starts',
          picks: [
            { course: 'ENDA 310', numbers: ['01'] },
            { course: 'ENDA 325', numbers: ['03'] },
            { course: 'SOIL 220', numbers: ['01', '01B'] }
          ]
        }
      ],
      keepFree: [
        { name: 'Swim coaching', days: 'MW', start: '16:00', end: '20:00', hard: true },
        { name: 'Lunch with Noor', days: 'F', start: '12:00', end: '13:00', hard: false }
      ]
    })
    this.underWay(imke, 'ENDA 240', 'HYDR 205', 'STAT 212', 'GEOG 118')

    const teodor = this.add({
      name: 'Teodor Quill',
      situation: 'Never planned. First year, nothing on the route yet.',
      programs: ['GEOF', 'ETHC'],
      standing: 'sophomore',
      campus: 'HARBOUR',
      record: this.done('GEOS 101 B, GEOS 110 C+, FELD 101 A-, WRIT 101 B, ETHI 101 B+', 'AU26')
    })
    this.underWay(teodor, 'GEOS 120', 'FELD 120', 'MATH 110', 'HYDR 105')

    const saoirse = this.add({
      name: 'Saoirse Lindqvist',
      situation: 'Close to the end and two credits short.',
      programs: ['ENVD'],
      standing: 'senior',
      record: [
        ...this.done('ENDA 110 B, ENVI 101 B+, MATH 125 C+, WRIT 101 B', 'AU24'),
        ...this.done('ENDA 120 B, CSCI 101 B, STAT 110 A-, CHEM 115 C', 'SP25'),
        ...this.done('ENDA 205 B, STAT 212 B, ENVI 150 B, WRIT 102 A-', 'AU25'),
        ...this.done('ENDA 240 B+, HYDR 205 B, GEOG 118 A, LANG 101 B', 'SP26'),
        ...this.done('ENDA 310 B, ENDA 325 B+, SOIL 220 B-, MATH 231 C+, WRIT 215 A-', 'AU26')
      ],
      planned: plan(
        'AU27: ENDA 410, ENDA 480, SPCH 101, ENVI 310; SP28: ENDA 490, HERI 105, ECON 101, HYDR 105'
      ),
      aim: 'SP28'
    })
    this.underWay(saoirse, 'ENDA 360', 'ENDA 340', 'STAT 330', 'HYDR 330')
    saoirse.signedOff = {
      by: 'orla.denholt',
      at: campusTime('2027-04-05T13:30'),
      courses: ['ENDA 410', 'ENDA 480', 'SPCH 101', 'ENVI 310']
    }
    for (const code of saoirse.signedOff.courses)
      this.enrolment.enrol(saoirse, code, 'AU27', campusTime('2027-04-08T07:02'))

    const bram = this.add({
      name: 'Bram Ostrander',
      situation: 'A library hold that would stop registration.',
      programs: ['HERI'],
      standing: 'junior',
      record: [
        ...this.done('HERI 105 B, WRIT 101 C+, LANG 101 B, GEOG 118 B-, MATH 110 C', 'AU25'),
        ...this.done('HERI 110 B, WRIT 102 B, LANG 102 B-, STAT 110 C+', 'SP26'),
        ...this.done('HERI 210 B+, HERI 220 B, LANG 201 C, SPCH 101 A-', 'AU26')
      ],
      planned: plan('AU27: HERI 310, GEOG 230, ARTS 120, LANG 140'),
      holds: [
        {
          title: 'Library fine',
          office: 'Library desk',
          howToLift:
            'Pay 14.50 at the library desk in Fern House, or by card on the library page. The hold is lifted within the hour.',
          amount: 14.5,
          stops: true,
          at: campusTime('2027-03-30T12:00')
        }
      ]
    })
    this.underWay(bram, 'HERI 240', 'HERI 320', 'CHEM 101', 'ENVI 101')
    bram.signedOff = {
      by: 'casimir.boyle',
      at: campusTime('2027-04-06T10:15'),
      courses: bram.planned.map((p) => p.course)
    }

    const priya = this.add({
      name: 'Priya Castellane',
      situation: 'Signed off, and changed since.',
      aim: 'SP29',
      programs: ['ENVD'],
      standing: 'junior',
      record: foundations(),
      planned: plan(
        'AU27: ENDA 310, ENDA 325, SOIL 220, STAT 250, WRIT 215; SP28: ENDA 360, HYDR 330, STAT 330'
      )
    })
    this.underWay(priya, 'ENDA 240', 'HYDR 205', 'STAT 212', 'HERI 110')
    priya.signedOff = {
      by: 'orla.denholt',
      at: campusTime('2027-04-02T15:00'),
      courses: ['ENDA 310', 'ENDA 325', 'SOIL 220', 'MATH 231', 'WRIT 215']
    }

    const yusuf = this.add({
      name: 'Yusuf Embley',
      situation: 'Evening and part-time, beside work.',
      programs: ['GEOF', 'ETHC'],
      standing: 'sophomore',
      attendance: 'evening',
      campus: 'HARBOUR',
      record: [
        ...this.done('GEOS 101 B, WRIT 101 A-', 'AU25'),
        ...this.done('GEOS 110 B+, MATH 110 C+', 'SP26'),
        ...this.done('GEOS 120 B, ETHI 101 A', 'AU26')
      ],
      planned: plan('AU27: GEOS 210, SPCH 101; SP28: GEOS 230, HYDR 105; AU28: CSCI 101, FELD 101'),
      reviewAskedAt: campusTime('2027-04-05T20:40')
    })
    this.underWay(yusuf, 'HERI 105')

    const hanne = this.add({
      name: 'Hanne Petrossian',
      situation: 'A corequisite is missing.',
      programs: ['ENVD'],
      standing: 'junior',
      record: foundations(),
      planned: plan('AU27: ENDA 310, HYDR 331, SOIL 220, MATH 231; SP28: HYDR 330, ENDA 360'),
      reviewAskedAt: campusTime('2027-04-07T09:00')
    })
    this.underWay(hanne, 'ENDA 240', 'HYDR 205', 'STAT 212')

    const lucan = this.add({
      name: 'Lucan Adeyemi-Frost',
      situation: 'Repeating a course; the average is below 2.0.',
      programs: ['HERI'],
      standing: 'junior',
      record: [
        ...this.done('HERI 105 C, WRIT 101 C-, LANG 101 C, GEOG 118 C, STAT 110 D', 'AU25'),
        ...this.done('HERI 110 C+, WRIT 102 F, LANG 102 C, GEOG 101 C-', 'SP26'),
        ...this.done('HERI 210 C+, WRIT 102 F, SPCH 101 B, ENVI 101 C', 'AU26')
      ],
      planned: plan('AU27: HERI 220, LANG 201, CHEM 101, WRIT 215')
    })
    this.underWay(lucan, 'WRIT 102', 'HERI 240', 'MUSI 120')

    const ottilie = this.add({
      name: 'Ottilie Marsh',
      situation: 'Courses that count toward nothing.',
      programs: ['ENVD'],
      standing: 'junior',
      record: [...foundations(), ...this.done('ARTS 110 A, MUSI 101 A, LANG 101 B+, ARTS 140 A-', 'SP26')],
      planned: plan('AU27: ENDA 310, SOIL 220, ARTS 210, MATH 231; SP28: ENDA 360, ARTS 230, HYDR 330')
    })
    this.underWay(ottilie, 'ENDA 240', 'HYDR 205', 'STAT 212', 'ARTS 230')
    ottilie.planned = ottilie.planned.filter((p) => p.course !== 'ARTS 230')

    const dario = this.add({
      name: 'Dario Fenn',
      situation: 'Transferred in with nine courses.',
      programs: ['ENVD'],
      standing: 'junior',
      record: [
        ...[
          'ENVI 101',
          'MATH 125',
          'WRIT 101',
          'WRIT 102',
          'STAT 110',
          'CHEM 115',
          'GEOG 118',
          'ECON 101',
          'CSCI 101'
        ].map((course): DemoRecord => ({
          course,
          term: null,
          credits: catalog.course(course).credits,
          grade: 'TR',
          origin: 'transfer'
        })),
        ...this.done('ENDA 110 A, ENVI 150 B+, LANG 101 B, SPCH 101 A-', 'AU26')
      ],
      planned: plan('AU27: ENDA 205, STAT 212, SOIL 220, WRIT 215; SP28: ENDA 240, HYDR 205, MATH 231')
    })
    this.underWay(dario, 'ENDA 120', 'HERI 110', 'ENVI 260')

    const wren = this.add({
      name: 'Wren Halloran',
      situation: 'In a cohort: block Kestrel, placed by the office.',
      programs: ['GEOF', 'ETHC'],
      standing: 'sophomore',
      block: 'kestrel',
      campus: 'HARBOUR',
      record: this.done('GEOS 101 A-, GEOS 110 B+, FELD 101 A, WRIT 101 B, ETHI 101 B+', 'AU26'),
      planned: plan(
        'AU27: GEOS 210, GEOS 240, FELD 210, CSCI 101; SP28: GEOS 230, GEOS 260, GEOS 290, ETHI 210'
      )
    })
    this.underWay(wren, 'GEOS 120', 'FELD 120', 'MATH 110', 'SPCH 101')
    for (const course of COHORT_COURSES)
      this.enrolment.enrol(wren, course, 'AU27', campusTime('2027-04-06T15:00'), { office: true })

    const mira = this.add({
      name: 'Mira Sandoval',
      situation: 'Waiting in line for a full section; a section she picked has moved.',
      programs: ['ENVD'],
      standing: 'senior',
      record: [...foundations(), ...this.done('ENDA 240 A, HYDR 205 A-, STAT 212 A, GEOG 118 B+', 'SP26')],
      planned: plan('AU27: ENDA 310, ENDA 325, SOIL 220, MATH 231; SP28: ENDA 360, STAT 330'),
      drafts: [
        {
          name: 'First draft',
          picks: [{ course: 'ENDA 325', numbers: ['02'], was: { days: 'TR', start: '14:30', end: '15:45' } }]
        }
      ]
    })
    mira.record = mira.record.filter(
      (r, i, list) => list.findIndex((other) => other.course === r.course) === i
    )
    this.underWay(mira, 'HERI 210', 'WRIT 230', 'SPCH 120')
    mira.signedOff = {
      by: 'orla.denholt',
      at: campusTime('2027-04-01T11:00'),
      courses: mira.planned.filter((p) => p.term === 'AU27').map((p) => p.course)
    }
    for (const course of ['ENDA 310', 'MATH 231'])
      this.enrolment.enrol(mira, course, 'AU27', campusTime('2027-04-08T07:01'))

    this.add({
      name: 'Jonas Thackeray',
      situation: 'Newly admitted, with an empty record.',
      programs: ['HERI'],
      standing: 'freshman',
      confirmed: false,
      math: 55,
      advisors: ['advising.office']
    })

    const ingrid = this.add({
      name: 'Ingrid Solheim',
      situation: 'A graduate student, in the certificate.',
      programs: ['ETHC'],
      standing: 'graduate',
      level: 'graduate',
      attendance: 'distance',
      record: this.done('ENDA 510 A-', 'AU26'),
      planned: plan('AU27: ETHI 510, ETHI 101; SP28: ETHI 210'),
      advisors: ['orla.denholt']
    })
    this.underWay(ingrid, 'HYDR 520')

    const tamsin = this.add({
      name: 'Tamsin Roe',
      situation: 'Two sections placed by an office before anything was done.',
      programs: ['HERI'],
      standing: 'sophomore',
      record: this.done('HERI 105 A, WRIT 101 A-, LANG 101 B+, GEOG 118 B', 'AU26'),
      planned: plan('AU27: HERI 210, HERI 220, LANG 201')
    })
    this.underWay(tamsin, 'HERI 110', 'WRIT 102', 'LANG 102', 'STAT 110')
    for (const course of ['HERI 210', 'LANG 201'])
      this.enrolment.enrol(tamsin, course, 'AU27', campusTime('2027-04-05T08:30'), { office: true })

    const felix = this.add({
      name: 'Felix Abara',
      situation: 'The program on record is the wrong one.',
      programs: ['HERI'],
      standing: 'sophomore',
      confirmed: false,
      record: this.done('ENDA 110 B+, ENVI 101 A-, MATH 125 B, WRIT 101 B', 'AU26'),
      planned: plan('AU27: ENDA 205, STAT 212, ENVI 150, WRIT 102')
    })
    this.underWay(felix, 'ENDA 120', 'CSCI 101', 'STAT 110')
    felix.advisors = ['casimir.boyle']

    for (const student of this.students.slice(0, 6)) student.advisors.push('nell.fairweather')
  }
}
