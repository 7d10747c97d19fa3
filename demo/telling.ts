// oxlint-disable max-lines -- students written by hand
/** Students written by hand, each in a telling situation. */
import { COHORT_COURSES } from './offer'
import { catalog } from './catalog'
import { campusTime } from './college'
import type { PeopleBuilder } from './people'
import { finished, type DemoRecord } from './student'

const foundations = () => [
  ...finished('ENDA 110 B+, ENVI 101 A, MATH 125 B, WRIT 101 A', 'AU25'),
  ...finished('ENDA 120 B, CSCI 101 A-, STAT 110 B, CHEM 115 B', 'SP26'),
  ...finished('ENDA 205 B, ENVI 150 C+, WRIT 102 B+, HERI 105 A-, ECON 101 B, ARTS 120 A', 'AU26')
]

const plan = (text: string) =>
  text.split('; ').flatMap((part) => {
    const [term, list] = part.split(': ')
    return list!.split(', ').map((course) => ({ course, term: term! }))
  })

function imke(people: PeopleBuilder): void {
  const imke = people.add({
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
  people.underWay(imke, 'ENDA 240', 'HYDR 205', 'STAT 212', 'GEOG 118')
}

function teodor(people: PeopleBuilder): void {
  const teodor = people.add({
    name: 'Teodor Quill',
    situation: 'Never planned. First year, nothing on the route yet.',
    programs: ['GEOF', 'ETHC'],
    standing: 'sophomore',
    campus: 'HARBOUR',
    record: finished('GEOS 101 B, GEOS 110 C+, FELD 101 A-, WRIT 101 B, ETHI 101 B+', 'AU26')
  })
  people.underWay(teodor, 'GEOS 120', 'FELD 120', 'MATH 110', 'HYDR 105')
}

function saoirse(people: PeopleBuilder): void {
  const saoirse = people.add({
    name: 'Saoirse Lindqvist',
    situation: 'Close to the end and two credits short.',
    programs: ['ENVD'],
    standing: 'senior',
    record: [
      ...finished('ENDA 110 B, ENVI 101 B+, MATH 125 C+, WRIT 101 B', 'AU24'),
      ...finished('ENDA 120 B, CSCI 101 B, STAT 110 A-, CHEM 115 C', 'SP25'),
      ...finished('ENDA 205 B, STAT 212 B, ENVI 150 B, WRIT 102 A-', 'AU25'),
      ...finished('ENDA 240 B+, HYDR 205 B, GEOG 118 A, LANG 101 B', 'SP26'),
      ...finished('ENDA 310 B, ENDA 325 B+, SOIL 220 B-, MATH 231 C+, WRIT 215 A-', 'AU26')
    ],
    planned: plan(
      'AU27: ENDA 410, ENDA 480, SPCH 101, ENVI 310; SP28: ENDA 490, HERI 105, ECON 101, HYDR 105'
    ),
    aim: 'SP28'
  })
  people.underWay(saoirse, 'ENDA 360', 'ENDA 340', 'STAT 330', 'HYDR 330')
  saoirse.signedOff = {
    by: 'orla.denholt',
    at: campusTime('2027-04-05T13:30'),
    courses: ['ENDA 410', 'ENDA 480', 'SPCH 101', 'ENVI 310']
  }
  for (const code of saoirse.signedOff.courses)
    people.enrolment.enrol(saoirse, code, 'AU27', campusTime('2027-04-08T07:02'))
}

function bram(people: PeopleBuilder): void {
  const bram = people.add({
    name: 'Bram Ostrander',
    situation: 'A library hold that would stop registration.',
    programs: ['HERI'],
    standing: 'junior',
    record: [
      ...finished('HERI 105 B, WRIT 101 C+, LANG 101 B, GEOG 118 B-, MATH 110 C', 'AU25'),
      ...finished('HERI 110 B, WRIT 102 B, LANG 102 B-, STAT 110 C+', 'SP26'),
      ...finished('HERI 210 B+, HERI 220 B, LANG 201 C, SPCH 101 A-', 'AU26')
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
  people.underWay(bram, 'HERI 240', 'HERI 320', 'CHEM 101', 'ENVI 101')
  bram.signedOff = {
    by: 'casimir.boyle',
    at: campusTime('2027-04-06T10:15'),
    courses: bram.planned.map((p) => p.course)
  }
}

function priya(people: PeopleBuilder): void {
  const priya = people.add({
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
  people.underWay(priya, 'ENDA 240', 'HYDR 205', 'STAT 212', 'HERI 110')
  priya.signedOff = {
    by: 'orla.denholt',
    at: campusTime('2027-04-02T15:00'),
    courses: ['ENDA 310', 'ENDA 325', 'SOIL 220', 'MATH 231', 'WRIT 215']
  }
}

function yusuf(people: PeopleBuilder): void {
  const yusuf = people.add({
    name: 'Yusuf Embley',
    situation: 'Evening and part-time, beside work.',
    programs: ['GEOF', 'ETHC'],
    standing: 'sophomore',
    attendance: 'evening',
    campus: 'HARBOUR',
    record: [
      ...finished('GEOS 101 B, WRIT 101 A-', 'AU25'),
      ...finished('GEOS 110 B+, MATH 110 C+', 'SP26'),
      ...finished('GEOS 120 B, ETHI 101 A', 'AU26')
    ],
    planned: plan('AU27: GEOS 210, SPCH 101; SP28: GEOS 230, HYDR 105; AU28: CSCI 101, FELD 101'),
    reviewAskedAt: campusTime('2027-04-05T20:40')
  })
  people.underWay(yusuf, 'HERI 105')
}

function hanne(people: PeopleBuilder): void {
  const hanne = people.add({
    name: 'Hanne Petrossian',
    situation: 'A corequisite is missing.',
    programs: ['ENVD'],
    standing: 'junior',
    record: foundations(),
    planned: plan('AU27: ENDA 310, HYDR 331, SOIL 220, MATH 231; SP28: HYDR 330, ENDA 360'),
    reviewAskedAt: campusTime('2027-04-07T09:00')
  })
  people.underWay(hanne, 'ENDA 240', 'HYDR 205', 'STAT 212')
}

function lucan(people: PeopleBuilder): void {
  const lucan = people.add({
    name: 'Lucan Adeyemi-Frost',
    situation: 'Repeating a course; the average is below 2.0.',
    programs: ['HERI'],
    standing: 'junior',
    record: [
      ...finished('HERI 105 C, WRIT 101 C-, LANG 101 C, GEOG 118 C, STAT 110 D', 'AU25'),
      ...finished('HERI 110 C+, WRIT 102 F, LANG 102 C, GEOG 101 C-', 'SP26'),
      ...finished('HERI 210 C+, WRIT 102 F, SPCH 101 B, ENVI 101 C', 'AU26')
    ],
    planned: plan('AU27: HERI 220, LANG 201, CHEM 101, WRIT 215')
  })
  people.underWay(lucan, 'WRIT 102', 'HERI 240', 'MUSI 120')
}

function ottilie(people: PeopleBuilder): void {
  const ottilie = people.add({
    name: 'Ottilie Marsh',
    situation: 'Courses that count toward nothing.',
    programs: ['ENVD'],
    standing: 'junior',
    record: [...foundations(), ...finished('ARTS 110 A, MUSI 101 A, LANG 101 B+, ARTS 140 A-', 'SP26')],
    planned: plan('AU27: ENDA 310, SOIL 220, ARTS 210, MATH 231; SP28: ENDA 360, ARTS 230, HYDR 330')
  })
  people.underWay(ottilie, 'ENDA 240', 'HYDR 205', 'STAT 212', 'ARTS 230')
  ottilie.planned = ottilie.planned.filter((p) => p.course !== 'ARTS 230')
}

function dario(people: PeopleBuilder): void {
  const dario = people.add({
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
      ...finished('ENDA 110 A, ENVI 150 B+, LANG 101 B, SPCH 101 A-', 'AU26')
    ],
    planned: plan('AU27: ENDA 205, STAT 212, SOIL 220, WRIT 215; SP28: ENDA 240, HYDR 205, MATH 231')
  })
  people.underWay(dario, 'ENDA 120', 'HERI 110', 'ENVI 260')
}

function wren(people: PeopleBuilder): void {
  const wren = people.add({
    name: 'Wren Halloran',
    situation: 'In a cohort: block Kestrel, placed by the office.',
    programs: ['GEOF', 'ETHC'],
    standing: 'sophomore',
    block: 'kestrel',
    campus: 'HARBOUR',
    record: finished('GEOS 101 A-, GEOS 110 B+, FELD 101 A, WRIT 101 B, ETHI 101 B+', 'AU26'),
    planned: plan(
      'AU27: GEOS 210, GEOS 240, FELD 210, CSCI 101; SP28: GEOS 230, GEOS 260, GEOS 290, ETHI 210'
    )
  })
  people.underWay(wren, 'GEOS 120', 'FELD 120', 'MATH 110', 'SPCH 101')
  for (const course of COHORT_COURSES)
    people.enrolment.enrol(wren, course, 'AU27', campusTime('2027-04-06T15:00'), { office: true })
}

function mira(people: PeopleBuilder): void {
  const mira = people.add({
    name: 'Mira Sandoval',
    situation: 'Waiting in line for a full section; a section she picked has moved.',
    programs: ['ENVD'],
    standing: 'senior',
    record: [...foundations(), ...finished('ENDA 240 A, HYDR 205 A-, STAT 212 A, GEOG 118 B+', 'SP26')],
    planned: plan('AU27: ENDA 310, ENDA 325, SOIL 220, MATH 231; SP28: ENDA 360, STAT 330'),
    drafts: [
      {
        name: 'First draft',
        picks: [{ course: 'ENDA 325', numbers: ['02'], was: { days: 'TR', start: '14:30', end: '15:45' } }]
      }
    ]
  })
  mira.record = mira.record.filter((r, i, list) => list.findIndex((other) => other.course === r.course) === i)
  people.underWay(mira, 'HERI 210', 'WRIT 230', 'SPCH 120')
  mira.signedOff = {
    by: 'orla.denholt',
    at: campusTime('2027-04-01T11:00'),
    courses: mira.planned.filter((p) => p.term === 'AU27').map((p) => p.course)
  }
  for (const course of ['ENDA 310', 'MATH 231'])
    people.enrolment.enrol(mira, course, 'AU27', campusTime('2027-04-08T07:01'))
}

function jonas(people: PeopleBuilder): void {
  people.add({
    name: 'Jonas Thackeray',
    situation: 'Newly admitted, with an empty record.',
    programs: ['HERI'],
    standing: 'freshman',
    confirmed: false,
    math: 55,
    advisors: ['advising.office']
  })
}

function ingrid(people: PeopleBuilder): void {
  const ingrid = people.add({
    name: 'Ingrid Solheim',
    situation: 'A graduate student, in the certificate.',
    programs: ['ETHC'],
    standing: 'graduate',
    level: 'graduate',
    attendance: 'distance',
    record: finished('ENDA 510 A-', 'AU26'),
    planned: plan('AU27: ETHI 510, ETHI 101; SP28: ETHI 210'),
    advisors: ['orla.denholt']
  })
  people.underWay(ingrid, 'HYDR 520')
}

function tamsin(people: PeopleBuilder): void {
  const tamsin = people.add({
    name: 'Tamsin Roe',
    situation: 'Two sections placed by an office before anything was done.',
    programs: ['HERI'],
    standing: 'sophomore',
    record: finished('HERI 105 A, WRIT 101 A-, LANG 101 B+, GEOG 118 B', 'AU26'),
    planned: plan('AU27: HERI 210, HERI 220, LANG 201')
  })
  people.underWay(tamsin, 'HERI 110', 'WRIT 102', 'LANG 102', 'STAT 110')
  for (const course of ['HERI 210', 'LANG 201'])
    people.enrolment.enrol(tamsin, course, 'AU27', campusTime('2027-04-05T08:30'), { office: true })
}

function felix(people: PeopleBuilder): void {
  const felix = people.add({
    name: 'Felix Abara',
    situation: 'The program on record is the wrong one.',
    programs: ['HERI'],
    standing: 'sophomore',
    confirmed: false,
    record: finished('ENDA 110 B+, ENVI 101 A-, MATH 125 B, WRIT 101 B', 'AU26'),
    planned: plan('AU27: ENDA 205, STAT 212, ENVI 150, WRIT 102')
  })
  people.underWay(felix, 'ENDA 120', 'CSCI 101', 'STAT 110')
  felix.advisors = ['casimir.boyle']
}

/** In the order of their numbers. */
const WRITTEN = [
  imke,
  teodor,
  saoirse,
  bram,
  priya,
  yusuf,
  hanne,
  lucan,
  ottilie,
  dario,
  wren,
  mira,
  jonas,
  ingrid,
  tamsin,
  felix
]

export function writtenByHand(people: PeopleBuilder): void {
  for (const write of WRITTEN) write(people)
  for (const student of people.students.slice(0, 6)) student.advisors.push('nell.fairweather')
}
