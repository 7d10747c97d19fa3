/** Weeks on the command line, and the files of sections and of what is wanted. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { sectionsFile, sectionsFrom, wantFile, wantFrom } from '#shared/week/weekFiles'
import { Complaints, shaped } from '../../tools/cli/files'
import { main } from '../../tools/cli/main'

let folder: string
beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'ridgeway-weeks-'))))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const whole = { from: '2027-08-30', to: '2027-12-17' }
const sections = {
  format: 'ridgeway sections 1',
  term: 'AU27',
  holidays: ['2027-11-25'],
  sections: [
    {
      code: 'E1',
      course: 'ENVI 310',
      number: '01',
      meetings: [{ days: 'MW', start: '9:30', end: '10:45', ...whole }]
    },
    {
      code: 'E2',
      course: 'ENVI 310',
      number: '02',
      meetings: [{ days: 'TR', start: '16:00', end: '17:15', ...whole }]
    },
    {
      code: 'S1',
      course: 'SOIL 220',
      number: '01',
      campus: 'HILL',
      meetings: [{ days: 'MW', start: '11:00', end: '12:15', ...whole }]
    },
    {
      code: 'L1',
      course: 'SOIL 220',
      number: '01A',
      parent: 'S1',
      meetings: [{ days: 'M', start: '9:00', end: '11:00', ...whole }]
    },
    {
      code: 'L2',
      course: 'SOIL 220',
      number: '01B',
      parent: 'S1',
      meetings: [{ days: 'F', start: '9:00', end: '11:00', ...whole }]
    }
  ]
}
const want = (over: object = {}) => ({
  format: 'ridgeway want 1',
  courses: ['ENVI 310', 'SOIL 220'],
  ...over
})

async function weeks(wanted: object, ...more: string[]) {
  const file = (name: string, value: object) => {
    writeFileSync(join(folder, name), JSON.stringify(value))
    return join(folder, name)
  }
  const [out, err] = [vi.spyOn(console, 'log'), vi.spyOn(console, 'error')].map((spy) => {
    const lines: string[] = []
    spy.mockImplementation((line: string) => void lines.push(line))
    return lines
  })
  const code = await main([
    'weeks',
    '--sections',
    file('S.json', sections),
    '--want',
    file('W.json', wanted),
    ...more
  ])
  vi.restoreAllMocks()
  return { code, out: out!.join('\n'), err: err!.join('\n') }
}

describe('ridgeway weeks', () => {
  it('ranks the weeks that fit as the wishes are ordered, and counts them', async () => {
    const { code, out } = await weeks(
      want({ wishes: [{ kind: 'endsBefore', time: '16:00' }, { kind: 'fewestDays' }] })
    )
    expect(code).toBe(0)
    const lines = out.trimEnd().split('\n')
    expect(lines).toHaveLength(4)
    // The lab on Monday morning would clash with the lecture then.
    expect(lines[0]).toBe('  1  ENVI 310-01  SOIL 220-01+01B   3 days, 9:00 am to 12:15 pm, 30 min between')
    expect(lines[3]).toBe('3 weeks fit; these are the best, proved.')
  })
  it('prints the same as JSON', async () => {
    const { out } = await weeks(want({ wishes: [{ kind: 'dayOff', day: 'F' }] }), '--json', '--top', '1')
    expect(JSON.parse(out)).toMatchObject({
      format: 'ridgeway weeks 1',
      ended: 'proved',
      count: 3,
      weeks: [{ sections: ['E2', 'S1', 'L1'], costs: [0] }]
    })
  })
  it('takes the course of a choice of which a section is fixed', async () => {
    const { out } = await weeks(
      want({ fixed: ['E2'], courses: [{ take: 1, of: ['SOIL 220', 'ENVI 310'] }] }),
      '--json'
    )
    expect(JSON.parse(out).weeks.map((one: { sections: string[] }) => one.sections)).toEqual([['E2']])
  })
  it('says what cannot hold together, and what letting go of one thing gives', async () => {
    const { code, out } = await weeks(
      want({
        fixed: ['L1'],
        keepFree: [{ name: 'Tuesday after 4', days: 'T', start: '16:00', end: '20:00' }]
      })
    )
    expect(code).toBe(3)
    expect(out).toContain(
      'No week fits: ENVI 310, SOIL 220 and free time Tuesday after 4 cannot hold together.'
    )
    expect(out).toContain('  Letting go of Tuesday after 4 gives 1 week.')
    expect(out).toContain('  Without ENVI 310: 1 week.')
  })
  it.each([
    [want({ fixed: ['X9'] }), [], 1, 'fixed: there is no section X9.'],
    [want({ fixed: ['E1'], courses: ['SOIL 220'] }), [], 1, 'section E1 is of ENVI 310, which is not among'],
    [
      want({ fixed: ['E1', 'S1'], courses: [{ take: 1, of: ['ENVI 310', 'SOIL 220'] }] }),
      [],
      1,
      'only 1 of these courses is taken'
    ],
    [
      want({ courses: ['ENVI 310', { take: 1, of: ['SOIL 220', 'ENVI 310'] }] }),
      [],
      1,
      'courses/1/of/1: ENVI 310 is wanted already'
    ],
    [want({ courses: [] }), [], 1, 'courses: has to name a course'],
    [want({ wishes: [{ kind: 'fewestDays', of: 3 }] }), [], 1, 'wishes/0'],
    [
      want({ keepFree: [{ days: 'T', start: '20:00', end: '16:00' }] }),
      [],
      1,
      'keepFree/0/end: has to be later'
    ],
    [want(), ['--top', 'all'], 2, '--top has to be a whole number from 1 to 1000.']
  ] as const)('says what is wrong: %j %j', async (wanted, more, expected, message) => {
    const { code, err } = await weeks(wanted, ...more)
    expect([code, err]).toEqual([expected, expect.stringContaining(message)])
  })
})

describe('the files', () => {
  const complaints = (value: object, shape: typeof sectionsFile | typeof wantFile) => {
    const found = new Complaints()
    shaped<unknown>('F', JSON.stringify(value), shape, found)
    return found.lines.join('\n')
  }
  const changed = (over: object) => ({
    ...sections,
    sections: [{ ...sections.sections[0], ...over }]
  })
  it.each([
    [{ course: 'envi310' }, 'sections/0/course: has to be a course code'],
    [{ mode: 'by post' }, 'sections/0/mode'],
    [{ taken: -1 }, 'sections/0/taken: has to be 0 or more'],
    [
      { meetings: [{ days: 'XX', start: '9:30', end: '10:45', ...whole }] },
      'sections/0/meetings/0/days: has to be day letters'
    ],
    [
      { meetings: [{ days: 'M', start: '25:00', end: '26:00', ...whole }] },
      'sections/0/meetings/0/start: has to be a time'
    ],
    [
      { meetings: [{ days: 'M', start: '9:30', end: '9:30', ...whole }] },
      'sections/0/meetings/0/end: has to be later'
    ],
    [
      { meetings: [{ days: 'M', start: '9:30', end: '9:40', from: whole.to, to: whole.from }] },
      'meetings/0/to: has to be no earlier'
    ]
  ])('refuse a section with %j', (over, message) => {
    expect(complaints(changed(over), sectionsFile)).toContain(message)
  })
  it.each([
    [{ code: 'E1' }, 'sections/4/code: E1 is the code of section 1 already'],
    [{ parent: 'ZZ' }, 'sections/4/parent: there is no section ZZ in this file'],
    [{ parent: 'E1' }, 'sections/4/parent: E1 is a section of ENVI 310, not of SOIL 220'],
    [{ parent: 'L1' }, 'sections/4/parent: L1 is itself a component']
  ])('refuse a lab with %j beside the others', (over, message) => {
    const others = sections.sections.slice(0, 4)
    const file = { ...sections, sections: [...others, { ...sections.sections[4], ...over }] }
    expect(complaints(file, sectionsFile)).toContain(message)
  })
  it('refuse to take more of some courses than there are', () => {
    expect(complaints(want({ courses: [{ take: 2, of: ['ENVI 310'] }] }), wantFile)).toContain('courses/0')
  })
  it('read every wish', () => {
    const wishes = [
      { kind: 'fewestDays' },
      { kind: 'fewestHoursBetween' },
      { kind: 'evenDays' },
      { kind: 'oneCampusADay' },
      { kind: 'seatsSafe' },
      { kind: 'dayOff', day: 'R' },
      { kind: 'startsAfter', time: '10:00' },
      { kind: 'lunchFree', from: '11:30', to: '14:00', minutes: 45 },
      { kind: 'mode', modes: ['online'] },
      { kind: 'instructors', names: ['Odell Harker'] }
    ]
    const read = wantFrom(
      wantFile.parse(want({ wishes, courses: ['ENVI 310', { take: 1, of: ['SOIL 220', 'STAT 330'] }] }))
    )
    expect(read.groups.map((group) => [group.take, group.courses.length])).toEqual([
      [1, 1],
      [1, 2]
    ])
    expect(read.wishes.map((wish) => wish.kind)).toEqual(wishes.map((wish) => wish.kind))
    expect(read.wishes[5]).toEqual({ kind: 'dayOff', day: 4 })
    expect(read.wishes[7]).toEqual({ kind: 'lunchFree', from: 690, to: 840, minutes: 45 })
    const { sections: offer, holidays } = sectionsFrom(sectionsFile.parse(sections))
    expect(offer.map((one) => [one.code, one.kind])).toEqual([
      ['E1', 'lecture'],
      ['E2', 'lecture'],
      ['S1', 'lecture'],
      ['L1', 'lab'],
      ['L2', 'lab']
    ])
    expect(offer[2]!.meetings[0]).toMatchObject({ days: [1, 3], start: 660, end: 735, campus: 'HILL' })
    expect(holidays.size).toBe(1)
  })
})
