/** What Imke Varga and her advisors have said and agreed before the demo begins. */
import { campusTime } from './college'

const IMKE = 1

const threads = [
  {
    id: 1,
    number: 1,
    studentId: IMKE,
    about: 'need' as const,
    aboutKey: 'writing-upper',
    advisorsOnly: false
  },
  {
    id: 2,
    number: 2,
    studentId: IMKE,
    about: 'course' as const,
    aboutKey: 'SOIL 220',
    advisorsOnly: false
  },
  { id: 3, studentId: IMKE, about: 'route' as const, aboutKey: null, advisorsOnly: true }
]

export function demoTalk(accountOf: (signIn: string) => number) {
  const imke = accountOf('imke.varga')
  const orla = accountOf('orla.denholt')
  const nell = accountOf('nell.fairweather')
  const remarks = remarksOf({ imke, orla, nell })
  const reads = [
    { accountId: imke, threadId: 1, remarkId: 2 },
    { accountId: orla, threadId: 1, remarkId: 2 },
    { accountId: orla, threadId: 2, remarkId: 3 },
    { accountId: orla, threadId: 3, remarkId: 4 },
    { accountId: nell, threadId: 3, remarkId: 4 }
  ]
  const madeAt = campusTime('2027-04-02T10:30')
  const agreed = [
    { what: 'Ask the field office for a place in FELD 390', who: 'student' as const, dueOn: '2027-04-08' },
    {
      what: 'Ask the department when STAT 330 runs in 2028',
      who: 'programAdvisor' as const,
      dueOn: '2027-04-16'
    },
    { what: 'Send the coaching hours of the autumn', who: 'student' as const, dueOn: '2027-08-20' }
  ].map((line) => ({ studentId: IMKE, madeById: orla, madeAt, ...line }))
  const records = [
    {
      studentId: IMKE,
      byId: orla,
      onDate: '2027-04-02',
      how: 'inPerson' as const,
      summary:
        'The minor stays. Two statistics courses at 300 in 2028; the field season in summer if there is a place.',
      writtenAt: madeAt
    }
  ]
  return { threads, remarks, reads, agreed, records }
}

const remarksOf = ({ imke, orla, nell }: Record<'imke' | 'orla' | 'nell', number>) =>
  [
    {
      threadId: 1,
      authorId: imke,
      text: 'Does it have to be a course with a stage? I would rather not perform.',
      at: campusTime('2027-04-01T18:20')
    },
    {
      threadId: 1,
      authorId: orla,
      text: 'No: WRIT 215 counts for it, and is written work alone.',
      at: campusTime('2027-04-02T10:05')
    },
    {
      threadId: 2,
      authorId: orla,
      text: 'Try SOIL 220 before HYDR 330; the field season fills early.',
      at: campusTime('2027-04-08T15:20')
    },
    {
      threadId: 3,
      authorId: nell,
      text: 'Coaching pays her rent; do not push hours into the evening.',
      at: campusTime('2027-04-02T11:40')
    }
  ].map((remark, i) => ({ id: i + 1, ...remark }))
