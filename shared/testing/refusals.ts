import type { Refusal } from '#core/findings'
import { courseCode } from '#core/ids'

const section = 'QX2K7' as never
/** A refusal of every kind. */
export const REFUSALS: Refusal[] = [
  { code: 'notOpen', opens: null },
  { code: 'notOpen', opens: Date.parse('2027-04-12T11:00:00Z') },
  { code: 'closed', since: 0 },
  { code: 'sessionClosed', section, since: Date.parse('2027-09-04T04:00:00Z') },
  { code: 'hold', title: 'Library fine', office: 'Library desk', amount: 14.5 },
  { code: 'signOff', ended: null, changed: false },
  { code: 'signOff', ended: null, changed: true },
  { code: 'signOff', ended: Date.parse('2027-05-01T04:00:00Z'), changed: false },
  {
    code: 'condition',
    condition: {
      is: 'leastGrade',
      course: courseCode('ENDA 325'),
      of: courseCode('STAT 212'),
      grade: 'C'
    }
  },
  { code: 'conditionCredits', credits: 18, most: 17 },
  { code: 'notAgreed' },
  { code: 'outsideSignOff' },
  { code: 'cancelled', section },
  { code: 'officeOnly', section },
  { code: 'componentMissing', kind: 'lab' },
  { code: 'alreadyRegistered' },
  { code: 'alreadyEarned', grade: 'B', below: 'C' },
  { code: 'full', section, kind: 'lecture', capacity: 24, waiting: 2 },
  { code: 'notForYou', section, programs: ['ENVD'], standings: ['senior'] },
  { code: 'permission', section },
  { code: 'prerequisite', missing: { kind: 'credits', credits: 60 } },
  { code: 'corequisite', missing: { kind: 'course', course: courseCode('HYDR 332'), sameTerm: true } },
  {
    code: 'clash',
    with: courseCode('SOIL 220'),
    clash: { days: [4], minutes: 30, start: 885, end: 915, dates: 15, first: 0 }
  },
  { code: 'load', credits: 20, most: 18 },
  { code: 'together', with: courseCode('HYDR 332') },
  { code: 'placed' },
  { code: 'reserved', section, kind: 'lecture', left: 4 },
  { code: 'reserved', section, kind: 'lab', left: 1 },
  { code: 'alreadyEarned', grade: 'TR', below: null },
  { code: 'alreadyTaken', term: 'SP27' as never, name: 'Spring 2027', held: true },
  { code: 'alreadyTaken', term: 'SP27' as never, name: 'Spring 2027', held: false },
  { code: 'notHeld' },
  { code: 'dropEnded', since: Date.parse('2027-11-20T05:00:00Z') },
  { code: 'neededBy', course: courseCode('HYDR 332') },
  {
    code: 'notGivenUp',
    course: courseCode('SOIL 220'),
    why: { code: 'neededBy', course: courseCode('HYDR 332') }
  },
  { code: 'lineClosed', since: Date.parse('2027-09-09T04:00:00Z') },
  { code: 'lineFull', section, places: 8 },
  { code: 'inLine' },
  { code: 'seatLeft' },
  { code: 'notInLine' },
  { code: 'offerEnded', until: Date.parse('2027-04-18T13:14:00Z') }
]
