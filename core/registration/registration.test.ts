import { describe, expect, it } from 'vitest'
import { Catalog } from '../catalog'
import type { RefusalCode } from '../findings'
import type { RecordEntry } from '../degree'
import { courseCode, termCode, type CourseCode, type SectionCode } from '../ids'
import { course, entry, meeting, section, term } from '../testing/build'
import { factsIn } from '../testing/facts'
import { optionsAmong, sectionsFor, type Option, type PermissionKind, type Section } from '../week'
import { decideCourse } from './course'
import { decide } from './decide'
import type { RegistrationFacts } from './facts'
import { afterGroup, givenBack } from './step'
import { decideDrop } from './drop'
import { groupLines } from './group'
import { openingFor, type Opening } from './opening'
import type { SignOff } from './signOff'

const catalog = new Catalog([
  course('STAT 110'),
  course('STAT 212', { prerequisite: 'STAT 110 (C)' }),
  course('HYDR 331', { prerequisite: 'with HYDR 332' }),
  course('HYDR 332', { prerequisite: 'with HYDR 331' }),
  course('FELD 390', { prerequisite: 'permission' }),
  course('SOIL 220', { credits: 4 }),
  course('HONR 300', { prerequisite: 'average 3 of (STAT 110, SOIL 220)' })
])
const terms = ['AU26', 'SP27', 'AU27'].map((code) => term(code))
const OPENS = Date.parse('2027-04-12T11:00:00Z')

const approval = (courses: CourseCode[], over: Partial<SignOff> = {}): SignOff => ({
  courses,
  alternatives: [],
  creditsMost: 18,
  conditions: [],
  until: null,
  ...over
})
const facts = (over: Partial<RegistrationFacts> = {}): RegistrationFacts =>
  factsIn(
    { catalog, terms, term: terms[2]! },
    { signOff: { policy: 'term', given: approval([]), changed: false }, ...over }
  )
const one = (...sections: Section[]): Option => optionsAmong(sections)[0]!
const codes = (option: Option, over: Partial<RegistrationFacts> = {}): RefusalCode[] =>
  decide(facts(over), [option])[0]!.refusals.map((refusal) => refusal.code)
const plain = one(section('STAT 110', [meeting('MW', '9:30', '10:45')]))

describe('an average that is asked for', () => {
  const asked = one(section('HONR 300', [meeting('MW', '9:30', '10:45')]))
  const of = (...record: RecordEntry[]) => {
    const graded = record.flatMap((entry) => (entry.grade === null ? [] : [{ ...entry, grade: entry.grade }]))
    const student = { standing: 'junior' as const, programs: [], tests: {}, graded }
    return decide(facts({ record, student }), [asked])[0]!
  }
  it('refuses where the grades do not reach it, and assumes it while one of them is to come', () => {
    // (2.0 x 3 + 3.7 x 4) / 7 = 2.97, (2.3 x 3 + 3.7 x 4) / 7 = 3.1: the definition of a grade point average.
    const below = [entry('STAT 110', 'C'), entry('SOIL 220', 'A-', { credits: 4 })]
    expect(of(...below).refusals).toMatchObject([{ code: 'prerequisite', missing: { kind: 'average' } }])
    expect(of(entry('STAT 110', 'C+'), below[1]!)).toMatchObject({ refusals: [], assumed: [] })
    const toCome = of(below[0]!, entry('SOIL 220', null, { credits: 4, term: termCode('SP27') }))
    expect(toCome.refusals).toEqual([])
    expect(toCome.assumed).toMatchObject([{ kind: 'average', least: 3 }])
    expect(of().refusals).toMatchObject([{ code: 'prerequisite' }])
  })
})

describe('a course that is earned', () => {
  const again = (
    grade: string,
    over: Partial<RegistrationFacts> = {},
    origin: 'here' | 'transfer' = 'here'
  ) => codes(plain, { record: [entry('STAT 110', grade, { origin })], ...over })
  it('is taken again only where the grade is below the limit', () => {
    expect(again('D')).toEqual([])
    expect(again('C-')).toEqual([])
    expect(again('C')).toEqual(['alreadyEarned'])
    expect(again('F')).toEqual([])
    expect(again('D', { repeatBelow: null })).toEqual(['alreadyEarned'])
  })
  it('is not taken again while it is being taken again', () => {
    const seat = { course: courseCode('STAT 110'), term: termCode('SP27'), section: 'QX2K7' as SectionCode }
    const held = [{ ...seat, credits: 3, placedByOffice: false }]
    expect(again('D', { held })).toEqual(['alreadyTaken'])
  })
  it('is not taken again where it was earned elsewhere or without points', () => {
    expect(again('TR', {}, 'transfer')).toEqual(['alreadyEarned'])
    expect(again('P')).toEqual(['alreadyEarned'])
  })
})

describe('the decision', () => {
  it('lets a student in at the very instant of the opening, not a moment before', () => {
    expect(codes(plain)).toEqual([])
    expect(codes(plain, { now: OPENS - 1 })).toEqual(['notOpen'])
    expect(codes(plain, { opens: null })).toEqual(['notOpen'])
  })
  it('is closed from the instant of closing', () => {
    const closes = OPENS + 1000
    expect(codes(plain, { closes, now: closes - 1 })).toEqual([])
    expect(codes(plain, { closes, now: closes })).toEqual(['closed'])
  })
  it('names every hold that stops, and only those', () => {
    const hold = { title: 'Library fine', office: 'Library desk', amount: 14.5, stopsRegistration: true }
    expect(codes(plain, { holds: [hold, { ...hold, stopsRegistration: false }, hold] })).toEqual([
      'hold',
      'hold'
    ])
  })
  it('asks for the sign-off as the policy says', () => {
    expect(codes(plain, { signOff: { policy: 'term', given: null, changed: false } })).toEqual(['signOff'])
    expect(codes(plain, { signOff: { policy: 'none', given: null, changed: false } })).toEqual([])
    expect(codes(plain, { signOff: { policy: 'strict', given: approval([]), changed: false } })).toEqual([
      'outsideSignOff'
    ])
    expect(
      codes(plain, {
        signOff: { policy: 'strict', given: approval([courseCode('STAT 110')]), changed: false }
      })
    ).toEqual([])
  })
  it('takes a course in place of one where the advisor allowed it', () => {
    const given = approval([courseCode('STAT 212')], { alternatives: [courseCode('STAT 110')] })
    for (const policy of ['strict', 'anew'] as const)
      expect(codes(plain, { signOff: { policy, given, changed: false } }), policy).toEqual([])
  })
  it.each([
    ['term', []],
    ['strict', []],
    ['anew', ['signOff']]
  ] as const)('under the rule %s a change of the term comes to %j', (policy, expected) => {
    const given = approval([courseCode('STAT 110')])
    expect(codes(plain, { signOff: { policy, given, changed: true } })).toEqual(expected)
  })
  it('says that it is lost by a change only while it would stand', () => {
    const given = approval([courseCode('STAT 110')], { until: 5 })
    const [line] = decide(facts({ now: OPENS, signOff: { policy: 'anew', given, changed: true } }), [plain])
    expect(line!.refusals).toContainEqual({ code: 'signOff', ended: 5, changed: false })
  })
  it('is full when taken reaches capacity, in any section of the option', () => {
    const lecture = section('SOIL 220', [], { credits: 4 })
    const lab = section('SOIL 220', [], {
      kind: 'lab',
      parent: lecture.code,
      credits: 0,
      capacity: 12,
      taken: 12
    })
    expect(decide(facts(), [one(lecture, lab)])[0]!.refusals).toMatchObject([
      { code: 'full', kind: 'lab', capacity: 12 }
    ])
    expect(codes(one(lecture, { ...lab, taken: 11 }))).toEqual([])
  })
  it('wants each component chosen', () => {
    expect(codes(plain, { componentsOf: () => ['lab'] })).toEqual(['componentMissing'])
  })
  it('keeps out whom a section is not for', () => {
    const only = (programs: string[], standings: ('junior' | 'senior')[]) =>
      codes(one(section('STAT 110', [], { onlyFor: { programs, standings } })))
    expect(only(['ENVD'], [])).toEqual([])
    expect(only(['HERI'], [])).toEqual(['notForYou'])
    expect(only(['ENVD'], ['senior'])).toEqual(['notForYou'])
  })
  it('leaves sections of an office to the office, and judges a cancelled one no further', () => {
    expect(codes(one(section('STAT 110', [], { officeOnly: true })))).toEqual(['officeOnly'])
    const gone = section('STAT 110', [], { cancelled: true, taken: 30 })
    expect(codes({ key: gone.code, course: gone.course, main: gone, components: [] })).toEqual(['cancelled'])
  })
  describe('a permission', () => {
    const asked = section('STAT 212', [meeting('MW', '9:30', '10:45')], {
      permissionNeeded: true,
      capacity: 20,
      taken: 20,
      credits: 4
    })
    const heldSections = [section('SOIL 220', [meeting('W', '10:00', '11:00')], { credits: 15 })]
    const RULES: [PermissionKind, RefusalCode][] = [
      ['consent', 'permission'],
      ['full', 'full'],
      ['prerequisite', 'prerequisite'],
      ['clash', 'clash'],
      ['load', 'load']
    ]
    const all = RULES.map(([, code]) => code)
    const given = (...kinds: PermissionKind[]) => ({
      heldSections,
      permissions: new Map([[asked.code, new Set(kinds)]])
    })
    it.each(RULES)('of the kind %s sets aside its own rule and no other', (kind, code) => {
      expect(codes(one(asked), { heldSections })).toEqual(all)
      expect(codes(one(asked), given(kind))).toEqual(all.filter((other) => other !== code))
    })
    it('says what it sets aside, and only where something would stand against it', () => {
      const kinds = RULES.map(([kind]) => kind)
      const [line] = decide(facts(given(...kinds)), [one(asked)])
      expect(line!.refusals).toEqual([])
      expect([...line!.setAside].sort()).toEqual([...kinds].sort())
      const free = { ...asked, taken: 3, permissionNeeded: false }
      const [other] = decide(facts({ ...given('full', 'consent'), heldSections: [] }), [one(free)])
      expect(other!.setAside).toEqual([])
    })
    it('for one section lets into no other', () => {
      const twin = section('STAT 212', [], { permissionNeeded: true, credits: 4 })
      expect(codes(one(twin), given('consent', 'prerequisite'))).toEqual([
        'permission',
        'prerequisite',
        'load'
      ])
    })
    it('to clash lets both sections stand, whichever of them was first', () => {
      const held = { ...asked, credits: 3 }
      const over = { heldSections: [held], permissions: new Map([[held.code, new Set(['clash'] as const)]]) }
      expect(codes(plain, over)).toEqual([])
    })
    /** What is left when just this kind is given for a section. */
    const with1 = (kind: PermissionKind, of: Section, over: Partial<RegistrationFacts> = {}) =>
      codes(one(of), { ...over, permissions: new Map([[of.code, new Set([kind])]]) })

    it('for seats kept for others lets into those, and one for a full section does not', () => {
      const kept = section('STAT 110', [], {
        capacity: 20,
        taken: 18,
        reserved: [{ program: 'HERI', block: null, left: 2 }]
      })
      expect(codes(one(kept))).toEqual(['reserved'])
      expect(with1('full', kept)).toEqual(['reserved'])
      expect(with1('reserved', kept)).toEqual([])
      expect(with1('reserved', { ...kept, taken: 20 })).toEqual(['full'])
    })
    it('for a restriction lets in whom the section is not for, and says so only for them', () => {
      const others = section('STAT 110', [], { onlyFor: { programs: ['GEOF'], standings: [] } })
      expect(codes(one(others))).toEqual(['notForYou'])
      expect(with1('restriction', others)).toEqual([])
      const own = { ...others, onlyFor: { programs: ['ENVD'], standings: [] } }
      const given = { permissions: new Map([[own.code, new Set(['restriction'] as const)]]) }
      expect(decide(facts(given), [one(own)])[0]!.setAside).toEqual([])
    })
    it('for what has to be taken beside it leaves what has to come before', () => {
      const both = section('SOIL 220', [], { prerequisite: 'STAT 212 and with HYDR 331' })
      expect(codes(one(both))).toEqual(['prerequisite', 'corequisite'])
      expect(with1('corequisite', both)).toEqual(['prerequisite'])
      expect(with1('prerequisite', both)).toEqual(['corequisite'])
    })
    it('to be late lets in after adding has ended, and out after dropping has', () => {
      const past = { now: facts().closes }
      expect(codes(plain, past)).toEqual(['closed'])
      expect(with1('late', plain.main, past)).toEqual([])
      const early = section('STAT 110', [], { session: 'first' })
      const dates = { addEnds: facts().now, freeUntil: facts().now, ends: facts().now }
      const sessions = new Map([[early.session, dates]])
      expect(codes(one(early), { sessions })).toEqual(['sessionClosed'])
      expect(with1('late', early, { sessions })).toEqual([])
      const { main } = plain
      const seat = { course: main.course, term: termCode('AU27'), section: main.code, credits: 3 }
      const over = {
        heldSections: [main],
        held: [{ ...seat, placedByOffice: false }],
        now: facts().drop.ends
      }
      const dropped = (more: Partial<RegistrationFacts>) =>
        decideDrop(facts({ ...over, ...more }), [main.course])[0]!
      expect(dropped({}).refusals.map((refusal) => refusal.code)).toEqual(['dropEnded'])
      const permissions = new Map([[main.code, new Set(['late'] as const)]])
      expect(dropped({ permissions })).toMatchObject({ refusals: [], mark: 'W' })
    })
  })
  it('wants consent for a section, and takes it for the course rule as well', () => {
    const field = section('FELD 390', [], { permissionNeeded: true })
    expect(codes(one(field))).toEqual(['permission', 'prerequisite'])
    expect(
      codes(one(field), { permissions: new Map([[field.code, new Set(['consent'] as const)]]) })
    ).toEqual([])
  })
  it('wants prerequisites with the grade and assumes what is under way', () => {
    const stat = one(section('STAT 212'))
    expect(codes(stat)).toEqual(['prerequisite'])
    expect(codes(stat, { record: [entry('STAT 110', 'D')] })).toEqual(['prerequisite'])
    const [line] = decide(facts({ record: [entry('STAT 110', null, { term: termCode('SP27') })] }), [stat])
    expect(line).toMatchObject({ refusals: [], assumed: [{ course: 'STAT 110' }] })
  })
  it('refuses what is registered or earned already', () => {
    expect(codes(plain, { heldSections: [section('STAT 110')] })).toEqual(['alreadyRegistered'])
    expect(codes(plain, { record: [entry('STAT 110', 'B')] })).toEqual(['alreadyEarned'])
  })
  it('refuses what is under way in another term: it counts once', () => {
    const underWay = { record: [entry('STAT 110', null, { term: termCode('SP27') })] }
    expect(decide(facts(underWay), [plain])[0]!.refusals).toMatchObject([
      { code: 'alreadyTaken', term: 'SP27', held: false }
    ])
  })
  it('leaves of sections those that are for somebody, with what they hold', () => {
    const open = section('STAT 110')
    const seniors = section('STAT 110', [], { onlyFor: { programs: [], standings: ['senior'] } })
    const lab = section('STAT 110', [], { kind: 'lab', parent: seniors.code })
    const taker = { programs: ['TEST'], standing: 'sophomore', permissions: new Map() } as const
    expect(sectionsFor([open, seniors, lab], taker, new Set(), new Set())).toEqual([open])
    expect(sectionsFor([open, seniors, lab], taker, new Set([lab.code]), new Set())).toEqual([open, lab])
    expect(
      sectionsFor([open, seniors, lab], { ...taker, standing: 'senior' }, new Set(), new Set())
    ).toHaveLength(3)
  })
  it('names the clash with what is held', () => {
    const heldSections = [section('SOIL 220', [meeting('W', '10:00', '11:00')], { credits: 4 })]
    expect(decide(facts({ heldSections }), [plain])[0]!.refusals).toMatchObject([
      { code: 'clash', with: 'SOIL 220', clash: { days: [3], minutes: 45 } }
    ])
  })
  it('counts the load with what is held, up to the limit and not beyond', () => {
    const heldSections = [section('SOIL 220', [], { credits: 15 })]
    expect(codes(plain, { heldSections, loadMost: 18 })).toEqual([])
    expect(codes(plain, { heldSections, loadMost: 17.5 })).toEqual(['load'])
  })
  it('collects all reasons', () => {
    const full = one(section('STAT 212', [], { capacity: 1, taken: 1 }))
    expect(codes(full, { now: OPENS - 1, loadMost: 2 })).toEqual(['notOpen', 'full', 'prerequisite', 'load'])
  })
})

describe('seats kept for others', () => {
  const kept = (left: number, over: Partial<Section> = {}) =>
    one(
      section('STAT 110', [], {
        capacity: 10,
        taken: 6,
        reserved: [{ program: 'GEOF', block: null, left }],
        ...over
      })
    )
  it('are not left for anybody else, and the refusal says how many there are', () => {
    expect(codes(kept(3))).toEqual([])
    expect(decide(facts(), [kept(4)])[0]!.refusals).toEqual([
      { code: 'reserved', section: expect.any(String), kind: 'lecture', left: 4 }
    ])
  })
  it('are there for those they are kept for, by program or by block', () => {
    const student = { ...facts().student, programs: ['GEOF'] }
    expect(codes(kept(4), { student })).toEqual([])
    const ofBlock = kept(4, { reserved: [{ program: null, block: 'Heron', left: 4 }] })
    expect(codes(ofBlock)).toEqual(['reserved'])
    expect(codes(ofBlock, { block: 'Heron' })).toEqual([])
  })
  it('a full section is full, whoever its seats were kept for', () => {
    expect(codes(kept(0, { taken: 10 }))).toEqual(['full'])
  })
})

describe('a section that asks for something of its own', () => {
  it('is judged by that and not by its course', () => {
    const own = (prerequisite: string | null) => one(section('STAT 212', [], { prerequisite }))
    expect(codes(own(null))).toEqual(['prerequisite'])
    expect(codes(own(''))).toEqual([])
    expect(codes(own('SOIL 220'))).toEqual(['prerequisite'])
    expect(codes(own('SOIL 220'), { record: [entry('SOIL 220')] })).toEqual([])
  })
})

describe('an exchange', () => {
  const lecture = section('SOIL 220', [meeting('TR', '13:00', '14:15')], { capacity: 24, taken: 24 })
  const lab = (letters: string, over: Partial<Section> = {}) =>
    section('SOIL 220', [meeting(letters, '9:00', '11:30')], {
      kind: 'lab',
      parent: lecture.code,
      credits: 0,
      capacity: 12,
      ...over
    })
  const [monday, friday] = [lab('M', { taken: 12 }), lab('F')]
  const seat = (placedByOffice = false) => ({
    course: courseCode('SOIL 220'),
    term: terms[2]!.code,
    section: lecture.code,
    credits: 3,
    placedByOffice
  })
  const holding = (over: Partial<RegistrationFacts> = {}) =>
    facts({
      heldSections: [lecture, monday],
      held: [seat()],
      exchanging: new Set([courseCode('SOIL 220')]),
      ...over
    })
  const [yours, other] = optionsAmong([lecture, monday, friday]) as [Option, Option]
  const said = (f: RegistrationFacts, ...group: Option[]) =>
    decide(f, group).map((line) => line.refusals.map((refusal) => refusal.code))

  it('needs to be wanted: a course that is held is not taken twice', () => {
    expect(said(holding({ exchanging: new Set() }), other)).toEqual([['alreadyRegistered']])
    expect(said(holding(), yours)).toEqual([['alreadyRegistered']])
  })
  it('asks for seats only in what is new: the full lecture stays the student’s', () => {
    expect(said(holding(), other)).toEqual([[]])
    const full = optionsAmong([lecture, lab('F', { capacity: 12, taken: 12 })])[0]!
    expect(said(holding(), full)).toEqual([['full']])
  })
  it('does not clash with what it gives back, and does not count its credits twice', () => {
    const overlap = optionsAmong([lecture, lab('M', { number: '09' })])[0]!
    expect(said(holding({ loadMost: 3 }), overlap)).toEqual([[]])
  })
  it('is not the student’s to make where an office placed them', () => {
    expect(said(holding({ held: [seat(true)] }), other)).toEqual([['placed']])
  })
  it('goes through together with what takes the hours it gives back, and before everything else', () => {
    const takesMonday = one(section('STAT 110', [meeting('M', '10:00', '11:00')]))
    const free = one(section('FELD 390', [meeting('T', '8:00', '8:50')]))
    const groups = groupLines([free, takesMonday, other], holding())
    expect(groups.map((g) => g.map((o) => o.course))).toEqual([['SOIL 220', 'STAT 110'], ['FELD 390']])
    expect(said(holding(), other, takesMonday)).toEqual([[], []])
    const full = optionsAmong([lecture, lab('F', { capacity: 12, taken: 12 })])[0]!
    expect(said(holding(), full, takesMonday)).toEqual([['full'], ['together']])
  })
  it('two that take each other’s hours go through in one', () => {
    const stat = section('STAT 110', [meeting('F', '9:00', '10:15')])
    const statOnMonday = section('STAT 110', [meeting('M', '9:00', '10:15')])
    const both = holding({
      heldSections: [lecture, monday, stat],
      held: [seat(), { ...seat(), course: courseCode('STAT 110'), section: stat.code }],
      exchanging: new Set([courseCode('SOIL 220'), courseCode('STAT 110')])
    })
    const [group] = groupLines([other, one(statOnMonday)], both)
    expect(group).toHaveLength(2)
    expect(said(both, ...group!)).toEqual([[], []])
    expect(said(both, other)).toEqual([['clash']])
  })
  it('leaves the facts with what was taken instead of what was held', () => {
    const after = afterGroup(holding(), [other])
    expect(after.heldSections.map((s) => s.code)).toEqual([lecture.code, friday.code])
    expect(after.held.map((s) => s.course)).toEqual(['SOIL 220'])
    expect(givenBack(holding(), courseCode('SOIL 220')).map((s) => s.code)).toEqual([
      lecture.code,
      monday.code
    ])
  })
})

describe('a course that another one is given up for', () => {
  const [stat, soil] = [courseCode('STAT 110'), courseCode('SOIL 220')]
  const held = section('STAT 110', [meeting('MW', '9:00', '10:15')])
  const wanted = one(section('SOIL 220', [meeting('MW', '9:30', '10:45')], { credits: 4 }))
  const seatOf = (code: string, main: Section, over = {}) => ({
    course: courseCode(code),
    term: terms[2]!.code,
    section: main.code,
    credits: 3,
    placedByOffice: false,
    ...over
  })
  const holding = (over: Partial<RegistrationFacts> = {}) =>
    facts({
      heldSections: [held],
      held: [seatOf('STAT 110', held)],
      givingUp: new Map([[soil, stat]]),
      ...over
    })

  it('has its hours and its credits, and clashes without the wish', () => {
    expect(decide(holding({ loadMost: 4 }), [wanted])[0]!.refusals).toEqual([])
    const without = decide(holding({ givingUp: new Map(), loadMost: 4 }), [wanted])[0]!.refusals
    expect(without.map((one) => one.code)).toEqual(['clash', 'load'])
  })
  it('leaves the facts without the seat, and gives it back once only', () => {
    const after = afterGroup(holding(), [wanted])
    expect(after.held.map((seat) => seat.course)).toEqual([soil])
    expect(after.heldSections).toEqual([wanted.main])
    expect(givenBack(holding(), soil)).toEqual([held])
    expect(givenBack(after, soil)).toEqual([])
  })
  it('is refused where the other seat cannot be given up, and says why', () => {
    const why = (over: Partial<RegistrationFacts>) => decide(holding(over), [wanted])[0]!.refusals
    expect(why({ held: [seatOf('STAT 110', held, { placedByOffice: true })] })).toEqual([
      { code: 'notGivenUp', course: stat, why: { code: 'placed' } }
    ])
    const ended = { freeUntil: OPENS - 1, ends: OPENS }
    expect(why({ drop: ended })).toEqual([
      { code: 'notGivenUp', course: stat, why: { code: 'dropEnded', since: OPENS } }
    ])
  })
  it('cannot take from a course that stays what that one asks for', () => {
    const labs = [section('HYDR 331'), section('HYDR 332')]
    const both = holding({
      heldSections: labs,
      held: [seatOf('HYDR 331', labs[0]!), seatOf('HYDR 332', labs[1]!)],
      givingUp: new Map([[soil, courseCode('HYDR 331')]])
    })
    expect(decide(both, [wanted])[0]!.refusals).toEqual([
      { code: 'notGivenUp', course: 'HYDR 331', why: { code: 'neededBy', course: 'HYDR 332' } }
    ])
  })
  it('is tried together with a line that needs the hours it frees', () => {
    const inItsHours = one(section('FELD 390', [meeting('MW', '9:00', '9:25')]))
    expect(groupLines([inItsHours, wanted], holding())).toEqual([[wanted, inItsHours]])
    expect(decide(holding(), [wanted, inItsHours]).map((line) => line.refusals.map((r) => r.code))).toEqual([
      ['together'],
      ['prerequisite']
    ])
  })
})

describe('a course that is the same as another', () => {
  const same = new Catalog([
    course('STAT 110', { equivalents: [courseCode('MATH 110')] }),
    course('MATH 110')
  ])
  it('is not taken beside it in the same term', () => {
    const held = section('MATH 110')
    const seat = {
      course: held.course,
      term: terms[2]!.code,
      section: held.code,
      credits: 3,
      placedByOffice: false
    }
    const beside = { catalog: same, heldSections: [held], held: [seat] }
    expect(codes(plain, beside)).toEqual(['alreadyTaken'])
    expect(codes(plain, { ...beside, givingUp: new Map([[plain.course, held.course]]) })).toEqual([])
    const [first, second] = decide(facts({ catalog: same }), [plain, one(held)])
    expect([first!, second!].map((line) => line.refusals.length > 0)).toEqual([true, true])
  })
})

describe('credits that are chosen', () => {
  const least = section('SOIL 220', [], { credits: 2, creditsRange: [2, 4] })
  const field = (credits: number) => one({ ...least, credits })
  it('are changed like an exchange of the same sections, within the limit of credits', () => {
    const held = {
      heldSections: [field(2).main],
      held: [
        {
          course: courseCode('SOIL 220'),
          term: terms[2]!.code,
          section: field(2).main.code,
          credits: 2,
          placedByOffice: false
        }
      ],
      exchanging: new Set([courseCode('SOIL 220')])
    }
    expect(codes(field(4), { ...held, loadMost: 4 })).toEqual([])
    expect(codes(field(4), { ...held, loadMost: 3 })).toEqual(['load'])
    expect(codes(field(2), held)).toEqual(['alreadyRegistered'])
  })
})

describe('a section of a session with dates of its own', () => {
  const half = one(section('STAT 110', [], { session: 'H1' }))
  const dates = { addEnds: OPENS + 10, freeUntil: OPENS + 20, ends: OPENS + 30 }
  const sessions = new Map([['H1', dates]])
  it('cannot be added from its date on, while the rest of the term can', () => {
    expect(codes(half, { now: OPENS + 9, sessions })).toEqual([])
    expect(codes(half, { now: OPENS + 10, sessions })).toEqual(['sessionClosed'])
    expect(codes(plain, { now: OPENS + 10, sessions })).toEqual([])
  })
  it('says so once where the whole term is closed', () => {
    expect(codes(half, { now: facts().closes, sessions })).toEqual(['closed'])
  })
})

describe('groups', () => {
  const a = one(section('HYDR 331'))
  const b = one(section('HYDR 332'))
  it('hold courses that ask for each other, and nothing else', () => {
    expect(groupLines([a, plain, b], facts()).map((g) => g.map((o) => o.course))).toEqual([
      ['HYDR 331', 'HYDR 332'],
      ['STAT 110']
    ])
  })
  it('go through together', () => {
    expect(decide(facts(), [a, b]).every((line) => line.refusals.length === 0)).toBe(true)
    expect(codes(a)).toEqual(['corequisite'])
  })
  it('go together as well where a student wants one only with the other, and only in that direction', () => {
    const [stat, soil] = [one(section('STAT 110')), one(section('SOIL 220'))]
    const wish = { onlyWith: new Map([[courseCode('STAT 110'), courseCode('SOIL 220')]]) }
    expect(groupLines([stat, soil], facts(wish))).toEqual([[stat, soil]])
    expect(groupLines([stat, soil], facts())).toHaveLength(2)
    expect(decide(facts(wish), [stat])[0]!.refusals).toEqual([{ code: 'together', with: 'SOIL 220' }])
    expect(decide(facts(wish), [soil])[0]!.refusals).toEqual([])
    expect(decide(facts({ ...wish, heldSections: [section('SOIL 220')] }), [stat])[0]!.refusals).toEqual([])
  })
  it('fail together, each with its own reason', () => {
    const full = one(section('HYDR 332', [], { capacity: 1, taken: 1 }))
    expect(decide(facts(), [a, full]).map((line) => line.refusals[0]!.code)).toEqual(['together', 'full'])
  })
})

describe('openings', () => {
  const opening = (over: Partial<Opening>): Opening => ({
    term: termCode('AU27'),
    title: '',
    opens: OPENS,
    standings: [],
    programs: [],
    blocks: [],
    creditsLeast: null,
    students: [],
    ...over
  })
  const person = { id: 7, standing: 'junior' as const, programs: ['ENVD'], block: null, credits: 60 }
  const find = (...openings: Opening[]) => openingFor(person, termCode('AU27'), openings)?.title
  it('are the earliest that is meant for the student', () => {
    const early = opening({ title: 'seniors', opens: OPENS - 2, standings: ['senior'] })
    const mine = opening({ title: 'juniors', standings: ['junior'] })
    const late = opening({ title: 'all', opens: OPENS + 1 })
    expect(find(late, mine, early)).toBe('juniors')
    expect(find(early)).toBeUndefined()
  })
  it('may name a student, a program or a block', () => {
    expect(find(opening({ title: 'named', students: [7] }))).toBe('named')
    expect(find(opening({ students: [8] }))).toBeUndefined()
    expect(find(opening({ title: 'program', programs: ['ENVD'] }))).toBe('program')
    expect(find(opening({ blocks: ['heron'] }))).toBeUndefined()
  })
  it('may ask for credits that are earned', () => {
    expect(find(opening({ title: 'as many', creditsLeast: 60 }))).toBe('as many')
    expect(find(opening({ creditsLeast: 61 }))).toBeUndefined()
  })
  it('are of one term', () => expect(find(opening({ title: 'x', term: termCode('SP28') }))).toBeUndefined())
})

describe('a course, whichever of its sections', () => {
  const full = section('STAT 110', [meeting('MW', '9:30', '10:45')], { taken: 30 })
  const free = section('STAT 110', [meeting('TR', '9:30', '10:45')])
  it('is judged by the section with the fewest reasons against it', () => {
    const decision = decideCourse(facts(), courseCode('STAT 110'), optionsAmong([full, free]))
    expect(decision.refusals).toEqual([])
    expect(decision.option!.main).toBe(free)
  })
  it('says what is in the way when every section is', () => {
    const decision = decideCourse(facts(), courseCode('STAT 110'), optionsAmong([full]))
    expect(decision.refusals.map((one) => one.code)).toEqual(['full'])
  })
  it('is judged without sections as far as that goes', () => {
    const without = (code: string, over: Partial<RegistrationFacts> = {}) =>
      decideCourse(facts(over), courseCode(code), []).refusals.map((one) => one.code)
    expect(without('STAT 212')).toEqual(['prerequisite'])
    expect(without('STAT 212', { record: [entry('STAT 110', 'C')] })).toEqual([])
    expect(without('STAT 110', { record: [entry('STAT 110', 'C')] })).toEqual(['alreadyEarned'])
    expect(without('HYDR 331')).toEqual(['corequisite'])
  })
  it('says the same of one section as the decision itself', () => {
    const options = ['STAT 110', 'STAT 212', 'SOIL 220', 'FELD 390', 'HYDR 331'].map((code) =>
      one(section(code, [meeting('MW', '9:30', '10:45')]))
    )
    for (const option of options)
      expect(decideCourse(facts(), option.course, [option]).refusals).toEqual(
        decide(facts(), [option])[0]!.refusals
      )
  })
})
