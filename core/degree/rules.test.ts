/** What programs ask for beside courses that count, exceptions, repeats, and grades of all kinds. */
import { describe, expect, it } from 'vitest'
import { Catalog } from '../catalog'
import { COMMON_SCALE, GradeScale } from '../grades'
import { courseCode, termCode } from '../ids'
import { course, entry, planned, term } from '../testing/build'
import { auditAll, auditProgram, auditRecord, type AuditOptions } from './audit'
import { compileProgram } from './compile'
import type { ConditionSpec } from './conditions'
import type { HeldAs } from './courseSet'
import { enrolmentOf, gradedAttempts, paceOfProgress } from './forecast'
import { creditsOfAll, type NeedSpec, type ProgramSpec } from './program'
import type { PlannedCourse, RecordEntry, RepeatPolicy } from './attempt'
import { attemptsOf } from './attemptList'

const terms = ['AU25', 'SP26', 'AU26', 'SP27', 'AU27'].map((code) => term(code))
const catalog = new Catalog([
  ...['ENVI', 'STAT', 'ARTS'].flatMap((s) => [101, 102, 201, 301, 302, 401].map((n) => course(`${s} ${n}`))),
  course('CHEM 101', { exclusive: [courseCode('CHEM 115')] }),
  course('CHEM 115')
])
const need = (from: string, over: Partial<NeedSpec> = {}): NeedSpec => ({
  id: 'n',
  title: 'Need',
  measure: 'credits',
  amount: 9,
  credits: 9,
  from,
  ...over
})
const spec = (over: Partial<ProgramSpec> = {}): ProgramSpec => ({
  code: 'TEST',
  title: 'Test',
  shortTitle: 'Test',
  kind: 'degree',
  catalogYear: '2025-26',
  credits: 9,
  areas: [{ id: 'a', title: 'A', needs: [need('any')] }],
  ...over
})
const attempts = (record: RecordEntry[], plan: PlannedCourse[] = [], repeats: RepeatPolicy = 'best') =>
  attemptsOf({ catalog, record, held: [], planned: plan, repeats }, terms)
const read = (
  over: Partial<ProgramSpec>,
  record: RecordEntry[],
  options: AuditOptions = {},
  plan: PlannedCourse[] = []
) => auditProgram(compileProgram(spec(over)), attempts(record, plan), catalog, options)
const condition = (
  one: ConditionSpec,
  record: RecordEntry[],
  options: AuditOptions = {},
  plan: PlannedCourse[] = []
) => read({ conditions: [one] }, record, options, plan).conditions[0]!

describe('conditions', () => {
  const upper: ConditionSpec = { id: 'c', title: 'Upper', asks: 'credits', least: 6, from: 'level 300+' }
  it('ask for credits at a level, and tell by what they will be met', () => {
    expect(condition(upper, [entry('ENVI 301')])).toMatchObject({
      status: undefined,
      amounts: { earned: 3 }
    })
    expect(condition(upper, [entry('ENVI 301')], {}, [planned('STAT 301', 'AU27')]).status).toBe('planned')
    expect(
      condition(upper, [entry('ENVI 301'), entry('ENVI 302', null, { term: termCode('SP27') })]).status
    ).toBe('underWay')
    expect(condition(upper, [entry('ENVI 301'), entry('ENVI 302')]).status).toBe('earned')
  })
  it('count only what counts in the program when they say so', () => {
    const record = ['ENVI 101', 'ENVI 102', 'ENVI 201', 'ENVI 301', 'ENVI 302'].map((code) => entry(code))
    const asks = { ...upper, counting: true }
    const narrow = { areas: [{ id: 'a', title: 'A', needs: [need('ENVI 100-299')] }], conditions: [asks] }
    expect(read(narrow, record).conditions[0]!.amounts).toMatchObject({ earned: 0 })
    expect(condition(upper, record).amounts).toMatchObject({ earned: 6 })
  })
  it('ask for credits earned here among the last ones', () => {
    const here: ConditionSpec = {
      id: 'c',
      title: 'Here',
      asks: 'credits',
      least: 6,
      here: true,
      amongLast: 6
    }
    const old = [
      entry('ENVI 101', 'B', { term: termCode('AU25') }),
      entry('ENVI 102', 'B', { term: termCode('AU25') })
    ]
    expect(condition(here, [...old, entry('STAT 101', 'B', { term: termCode('SP26') })]).status).toBe(
      'earned'
    )
    const away = [...old, entry('STAT 101', 'B', { term: termCode('SP26'), origin: 'transfer' as const })]
    expect(condition(here, away)).toMatchObject({ status: undefined, amounts: { earned: 3 } })
  })
  it('ask for an average over the best courses, or over every attempt', () => {
    const average: ConditionSpec = { id: 'c', title: 'GPA', asks: 'average', least: 3 }
    const record = [
      entry('ENVI 101', 'A', { credits: 1 }),
      entry('ENVI 102', 'B', { credits: 4 }),
      entry('STAT 101', 'B', { credits: 2 }),
      entry('STAT 102', 'D', { credits: 3 }),
      entry('ENVI 201', 'F', { credits: 2, term: termCode('AU25') }),
      entry('ENVI 201', 'C', { credits: 2, term: termCode('SP26') })
    ]
    // Of equal grades the one with more credits: (4.0 x 1 + 3.0 x 4) / 5 = 3.2.
    expect(condition({ ...average, best: 2 }, record).value).toBeCloseTo(3.2, 10)
    expect(condition({ ...average, best: 2, from: 'STAT *' }, record).value).toBeCloseTo(9 / 5, 10)
    // With fewer than that, over those there are.
    expect(condition({ ...average, best: 9 }, record).value).toBe(condition(average, record).value)
    expect(() => condition({ ...average, best: 1.5 }, record)).toThrow('come whole, from 1 on')
    // (4 + 12 + 6 + 3 + 4) / 12 without what was taken again, / 14 with it.
    expect(condition(average, record).value).toBeCloseTo(29 / 12, 10)
    expect(condition({ ...average, attempts: 'all' }, record).value).toBeCloseTo(29 / 14, 10)
    expect(condition({ ...average, attempts: 'all', from: 'ENVI 201' }, record).value).toBe(1)
  })
  it('round an average as it is written, halves up, whatever a number of the machine makes of them', () => {
    // 201 points over 200 credits are 1.005, which as a double is less than that.
    const record = [entry('STAT 101', 'D', { credits: 199 }), entry('STAT 102', 'C', { credits: 1 })]
    const least = (value: number): ConditionSpec => ({ id: 'c', title: 'GPA', asks: 'average', least: value })
    expect(condition(least(1.01), record).status).toBe('earned')
    expect(condition(least(1.02), record).status).toBeUndefined()
  })
  it('ask for an average over a set, rounded to hundredths as it is written', () => {
    const average: ConditionSpec = { id: 'c', title: 'GPA', asks: 'average', least: 2.5, from: 'STAT *' }
    // (3.0 x 3 + 2.0 x 3) / 6 = 2.50, the definition of a grade point average.
    const two = [entry('STAT 101', 'B'), entry('STAT 102', 'C'), entry('ENVI 101', 'F')]
    expect(condition(average, two)).toMatchObject({ status: 'earned', value: 2.5 })
    expect(condition({ ...average, least: 2.51 }, two).status).toBeUndefined()
    expect(condition(average, [])).toMatchObject({ status: undefined, value: undefined })
  })
  it('ask for a test and for a milestone', () => {
    const test: ConditionSpec = { id: 'c', title: 'Test', asks: 'test', test: 'MATH', least: 50 }
    const beside = (score: number) => ({ beside: { tests: { MATH: score }, milestones: new Set<string>() } })
    expect(condition(test, [], beside(50)).status).toBe('earned')
    expect(condition(test, [], beside(49))).toMatchObject({ status: undefined, value: 49 })
    const shown: ConditionSpec = { id: 'folio', title: 'Portfolio', asks: 'milestone' }
    expect(condition(shown, [])).toMatchObject({ status: undefined })
    expect(condition(shown, [], { beside: { tests: {}, milestones: new Set(['folio']) } }).status).toBe(
      'earned'
    )
  })
})

describe('an entry set', () => {
  const over: Partial<ProgramSpec> = {
    entry: {
      title: 'Before it may be declared',
      needs: [need('STAT 101', { id: 'e', measure: 'courses', amount: 1, credits: 3, leastGrade: 'C' })],
      conditions: [{ id: 'ec', title: 'GPA', asks: 'average', least: 2 }]
    }
  }
  it('is audited alike, and takes nothing from the program', () => {
    const met = read(over, [entry('STAT 101', 'B')])
    expect(met.entry!.areas[0]!.state).toBe('met')
    expect(met.entry!.conditions[0]!.status).toBe('earned')
    expect(met.amounts.earned).toBe(3)
    expect(read(over, [entry('STAT 101', 'D')]).entry!.areas[0]!.state).toBe('needed')
  })
})

describe('exceptions', () => {
  const grant = (over: object) => ({
    id: 1,
    kind: 'waiver' as const,
    program: 'TEST',
    need: 'n',
    course: null,
    reason: 'because',
    by: 'Somebody',
    at: 0,
    ...over
  })
  it('waive a need: it is met, takes no course and needs no credits', () => {
    const result = read({}, [entry('ENVI 101')], { exceptions: [grant({})] })
    expect(result.areas[0]).toMatchObject({ state: 'met', amounts: { earned: 0, needed: 0 } })
    expect(result.areas[0]!.needs[0]!.need.waived).toMatchObject({ by: 'Somebody' })
    expect(result.outside.map((o) => o.attempt.course)).toEqual(['ENVI 101'])
  })
  it('let a course be taken for a need that its set does not name', () => {
    const over = { areas: [{ id: 'a', title: 'A', needs: [need('STAT *')] }] }
    const substitution = grant({ kind: 'substitution', course: courseCode('ARTS 101') })
    expect(read(over, [entry('ARTS 101')]).amounts.earned).toBe(0)
    expect(read(over, [entry('ARTS 101')], { exceptions: [substitution] }).amounts.earned).toBe(3)
  })
  it('of another program, or for a need that is gone, change nothing', () => {
    for (const other of [grant({ program: 'ELSE' }), grant({ need: 'gone' })])
      expect(read({}, [entry('ENVI 101')], { exceptions: [other] }).amounts).toEqual(
        read({}, [entry('ENVI 101')]).amounts
      )
  })
})

describe('a condition on what counts', () => {
  it('is met by a repeat with more credits, where its need is no further from being met by it', () => {
    const two = new Catalog([
      course('ENVI 101', { credits: 1.5, equivalents: [courseCode('ENVI 201')] }),
      course('ENVI 201', { equivalents: [courseCode('ENVI 101')] })
    ])
    const list = attemptsOf(
      {
        ...{ catalog: two, record: [entry('ENVI 101', 'B', { credits: 1.5 })], held: [] },
        planned: [planned('ENVI 201', 'SP27')]
      },
      terms
    )
    const asked = spec({
      credits: 4,
      areas: [{ id: 'a', title: 'A', needs: [need('ENVI 101', { amount: 4, credits: 4 })] }],
      conditions: [{ id: 'c', title: 'C', asks: 'credits', least: 3, from: 'ENVI 201', counting: true }]
    })
    const audit = auditProgram(compileProgram(asked), list, two)
    expect(audit.conditions[0]).toMatchObject({ status: 'planned', amounts: { planned: 3 } })
    expect(audit.areas[0]!.needs[0]!.evidence).toMatchObject([{ course: 'ENVI 201', again: true }])
  })
})

describe('what is ahead twice', () => {
  it('counts nowhere, also where an equivalent by another code would be taken', () => {
    const both = new Catalog([
      course('ENVI 101', { equivalents: [courseCode('STAT 101')] }),
      course('STAT 101', { equivalents: [courseCode('ENVI 101')] })
    ])
    const list = attemptsOf(
      {
        ...{ catalog: both, record: [entry('ENVI 101', null, { term: termCode('SP27') })], held: [] },
        planned: [planned('STAT 101', 'SP28')]
      },
      terms
    )
    const stat = compileProgram(spec({ areas: [{ id: 'a', title: 'A', needs: [need('STAT *')] }] }))
    expect(auditProgram(stat, list, both).areas[0]!.needs[0]!.evidence).toEqual([])
    // Its term carries it all the same.
    expect(list.counted).toMatchObject([
      { course: 'ENVI 101' },
      { course: 'STAT 101', again: true, twice: true }
    ])
  })
})

describe('courses left that are equivalents', () => {
  it('are one course: together they complete nothing', () => {
    const few = new Catalog([
      course('ENVI 101', { credits: 1.5, equivalents: [courseCode('STAT 101')] }),
      course('STAT 101', { credits: 1.5, equivalents: [courseCode('ENVI 101')] }),
      course('ARTS 101', { credits: 2 }),
      course('ARTS 102')
    ])
    const from = 'ENVI 101, STAT 101, ARTS 101'
    const needs = [need(from, { amount: 3, credits: 3, subjects: 2 })]
    const list = attemptsOf(
      { ...{ catalog: few, held: [], planned: [] }, record: [entry('ARTS 101', 'B', { credits: 2 })] },
      terms
    )
    const whole = spec({
      credits: 4,
      areas: [
        { id: 'a', title: 'A', needs: [need('any', { id: 'm', measure: 'courses', amount: 1, credits: 1 })] },
        { id: 'b', title: 'B', needs }
      ]
    })
    const [any, subjects] = auditProgram(compileProgram(whole), list, few).areas.map((one) => one.needs[0]!)
    // The course of arts is the other subject: any other course is left for the other need.
    expect(subjects).toMatchObject({ evidence: [{ course: 'ARTS 101' }], beyond: false })
    expect(any!.evidence).toEqual([])
  })
})

describe('a course that is earned below the grade asked for', () => {
  it('is left for its repeat, where free choice would take the only way to complete a need', () => {
    // Six of the credits at 300 and above are left, three of them by repeating what was passed with a D.
    const few = new Catalog([course('ENVI 101', { credits: 1.5 }), course('ENVI 301'), course('STAT 301')])
    const areas = [
      { id: 'a', title: 'A', needs: [need('level 300+', { amount: 6, credits: 6, leastGrade: 'C' })] },
      { id: 'free', title: 'Free', free: true, needs: [need('any', { id: 'f', amount: 3, credits: 3 })] }
    ]
    const record = [entry('ENVI 101', 'B', { credits: 1.5 }), entry('STAT 301', 'D')]
    const list = attemptsOf({ catalog: few, record, held: [], planned: [] }, terms)
    const audit = auditProgram(compileProgram(spec({ areas })), list, few)
    expect(audit.areas[0]!.needs[0]).toMatchObject({ beyond: false, evidence: [] })
    expect(audit.areas[1]!.needs[0]!.evidence).toMatchObject([{ course: 'ENVI 101' }])
  })
})

describe('a course without credits', () => {
  const withConvocation = new Catalog([
    ...catalog.courses,
    course('CONV 1', { credits: 0, creditsMost: 0 }),
    course('CONV 2', { credits: 0, creditsMost: 0, repeatable: true })
  ])
  const none = (code: string, term: string) => entry(code, 'P', { term: termCode(term), credits: 0 })
  const audited = (needs: NeedSpec[], record: RecordEntry[]) =>
    auditProgram(
      compileProgram(spec({ credits: creditsOfAll(needs), areas: [{ id: 'a', title: 'A', needs }] })),
      attemptsOf({ catalog: withConvocation, record, held: [], planned: [] }, terms),
      withConvocation,
      {}
    ).areas[0]!
  const once = (from: string, amount = 1) => need(from, { measure: 'courses', amount, credits: 0 })
  it('meets a need in courses, which may stand for none; the one that may be repeated so many times', () => {
    const area = audited(
      [once('CONV 1'), { ...once('CONV 2', 3), id: 'm' }],
      [none('CONV 1', 'AU25'), none('CONV 2', 'AU25'), none('CONV 2', 'SP26')]
    )
    expect(area.needs.map((one) => [one.state, one.missing])).toEqual([
      ['met', 0],
      ['needed', 1]
    ])
    expect(area.credits).toBe(0)
  })
  it('counts for no need in credits, by what it is or as it was taken', () => {
    const record = [none('CONV 1', 'AU25'), none('STAT 101', 'AU25'), entry('ENVI 101')]
    const [any] = audited([need('any')], record).needs
    expect(any!.evidence.map((one) => one.course)).toEqual(['ENVI 101'])
    expect(any!.missing).toBe(6)
  })
})

describe('what counts at most', () => {
  const grades = ['A', 'D', 'D', 'B'] as const
  const four = ['ENVI 101', 'ENVI 102', 'ENVI 201', 'STAT 101'].map((code, i) => entry(code, grades[i]))
  const inNeed = (over: Partial<NeedSpec>) => ({
    credits: 12,
    areas: [{ id: 'a', title: 'A', needs: [need('any', { amount: 12, credits: 12, ...over })] }]
  })
  const counted = (over: Partial<ProgramSpec>) =>
    read(over, four).areas[0]!.needs[0]!.evidence.map((one) => one.course)

  it('may be so many courses of one subject', () => {
    expect(counted(inNeed({ perSubject: 2 }))).toHaveLength(3)
    expect(
      counted(inNeed({ perSubject: 1 }))
        .map((code) => code.slice(0, 4))
        .sort()
    ).toEqual(['ENVI', 'STAT'])
    expect(counted(inNeed({ perSubject: 3 }))).toHaveLength(4)
    const { outside } = read(inNeed({ perSubject: 2 }), four)
    expect(outside).toMatchObject([{ why: 'limited' }])
  })
  it('may be so many courses of a set, in a need or in the program', () => {
    expect(counted(inNeed({ atMost: [{ from: 'ENVI 100-199', courses: 1 }] }))).toHaveLength(3)
    expect(counted(inNeed({ atMost: [{ from: 'ENVI *', courses: 0 }] }))).toEqual(['STAT 101'])
    const oneD = { limits: [{ title: 'One D', from: 'any', courses: 1, grades: ['D+', 'D'] }] }
    const audit = read({ ...inNeed({}), ...oneD }, four)
    expect(audit.limits).toEqual([{ title: 'One D', courses: 1, used: 1 }])
    expect(audit.areas[0]!.needs[0]!.evidence).toHaveLength(3)
    expect(audit.outside).toMatchObject([{ attempt: { grade: 'D' }, why: 'limited' }])
  })
  it('leaves a need a way to be completed before it meets a condition', () => {
    // A transfer of STAT 101 and one more course of ENVI complete it; ENVI 201, which the condition asks for, leaves no such way.
    const part = inNeed({
      amount: 6,
      credits: 6,
      perSubject: 1,
      including: [{ from: 'ENVI 101, 102', amount: 3 }]
    })
    const here: ConditionSpec = {
      ...{ id: 'c', title: 'Here', asks: 'credits', least: 3, from: 'ENVI *' },
      ...{ counting: true, here: true }
    }
    const record = [entry('ENVI 201'), entry('STAT 101', 'B', { origin: 'transfer' })]
    const { areas, conditions } = read({ ...part, credits: 6, conditions: [here] }, record)
    expect(areas[0]!.needs[0]!.evidence).toMatchObject([{ course: 'STAT 101' }])
    expect(conditions[0]!.status).toBeUndefined()
  })
  it('is told as open where only what is limited is left', () => {
    const all = inNeed({ amount: 12, perSubject: 1, from: 'ENVI *' })
    const [result] = read(all, four).areas[0]!.needs
    expect(result).toMatchObject({ state: 'needed', missing: 9 })
  })
})

describe('grades without points', () => {
  it('that say passed are no C, unless the scale says so; credit from elsewhere is (common practice)', () => {
    const asks = {
      areas: [
        { id: 'a', title: 'A', needs: [need('STAT 101', { measure: 'courses', amount: 1, leastGrade: 'C' })] }
      ]
    }
    const meets = (grade: string, scale?: GradeScale) => {
      const of = new Catalog(catalog.courses, scale)
      const taken = attemptsOf(
        { catalog: of, record: [entry('STAT 101', grade)], held: [], planned: [] },
        terms
      )
      return auditProgram(compileProgram(spec(asks)), taken, of).areas[0]!.needs[0]!.state === 'met'
    }
    expect(['P', 'TR', 'CR', 'C', 'D'].map((grade) => meets(grade))).toEqual([false, true, true, true, false])
    const ours = COMMON_SCALE.grades.map((one) => (one.grade === 'P' ? { ...one, rank: 2 } : one))
    expect(meets('P', new GradeScale(ours))).toBe(true)
  })
})

describe('several attempts', () => {
  const twice = [
    entry('STAT 101', 'B', { term: termCode('AU25') }),
    entry('STAT 101', 'D', { term: termCode('SP26') })
  ]
  it('count the best, or the last, by the program', () => {
    expect(attempts(twice).counted.map((t) => t.grade)).toEqual(['B'])
    expect(attempts(twice, [], 'last').counted.map((t) => t.grade)).toEqual(['D'])
  })
  it('all enter the average where the program says so, and give credits once', () => {
    const list = attempts(twice, [], 'all')
    expect(list.counted).toHaveLength(1)
    // (3.0 x 3 + 1.0 x 3) / 6 = 2.0
    expect(catalog.scale.average(gradedAttempts(list))).toBe(2)
    expect(catalog.scale.average(gradedAttempts(attempts(twice)))).toBe(3)
  })
  it('elsewhere are in no average and take none out of it, whatever grade they bring (common practice)', () => {
    const brought = (grade: string) =>
      entry('STAT 101', grade, { term: termCode('SP26'), origin: 'transfer' })
    const other = entry('ENVI 101', 'B', { term: termCode('AU25') })
    const gradesOf = (...record: RecordEntry[]) =>
      gradedAttempts(attempts(record))
        .map((one) => `${one.course} ${one.grade}`)
        .sort()
    // What is brought in counts by its grade, and is left out of the average.
    expect(attempts([brought('A'), other]).counted).toHaveLength(2)
    expect(gradesOf(brought('A'), other)).toEqual(['ENVI 101 B'])
    // A better grade from elsewhere gives the credits; the one given here stays in the average, failed or passed.
    expect(attempts([twice[1]!, brought('A')]).counted.map((one) => one.grade)).toEqual(['A'])
    expect(gradesOf(twice[1]!, brought('A'))).toEqual(['STAT 101 D'])
    const failed = entry('STAT 101', 'F', { term: termCode('AU25') })
    expect(gradesOf(failed, brought('A'), other)).toEqual(['ENVI 101 B', 'STAT 101 F'])
    // Passed here as well, the failed one is out.
    expect(gradesOf(failed, brought('A'), twice[1]!)).toEqual(['STAT 101 D'])
    expect(gradesOf(...twice, brought('A'))).toEqual(['STAT 101 B'])
    // A failed one from elsewhere is none of ours.
    expect(gradesOf(brought('F'), other)).toEqual(['ENVI 101 B'])
    const all = gradedAttempts(attempts([...twice, brought('A')], [], 'all'))
    expect(all.map((one) => one.grade).sort()).toEqual(['B', 'D'])
    const last = gradedAttempts(attempts([...twice, brought('A')], [], 'last'))
    expect(last.map((one) => one.grade)).toEqual(['D'])
  })
  it('of which the last failed give nothing, where the last one counts', () => {
    const failed = [twice[0]!, entry('STAT 101', 'F', { term: termCode('SP26') })]
    expect(attempts(failed, [], 'last').counted).toEqual([])
    expect(attempts(failed).counted.map((t) => t.grade)).toEqual(['B'])
  })
  it('a withdrawal is no attempt that could be the last', () => {
    const left = [twice[0]!, entry('STAT 101', 'W', { term: termCode('SP26') })]
    expect(attempts(left, [], 'last').counted.map((t) => t.grade)).toEqual(['B'])
  })
})

describe('a condition about a campus', () => {
  const asks: ConditionSpec = {
    id: 'harbour',
    asks: 'credits',
    title: 'At the harbour',
    from: 'campus HARBOUR',
    least: 3
  }
  const judge = (heldAs: HeldAs) => {
    const program = compileProgram(spec({ conditions: [asks] }))
    const input = {
      catalog,
      record: [],
      held: [],
      planned: [planned('ENVI 101', 'AU27')],
      heldAs: () => heldAs
    }
    return auditRecord([program], input, terms).audits[0]!.conditions[0]!
  }
  it('is met by where a picked section is held', () => {
    expect(judge({ campus: 'HARBOUR', mode: 'inPerson' })).toMatchObject({ status: 'planned', unknown: 0 })
    expect(judge({ campus: 'HILL', mode: 'inPerson' })).toMatchObject({ status: undefined, unknown: 0 })
  })
  it('is not known yet where the course is held at one campus or another', () => {
    expect(judge({ campuses: ['HARBOUR', 'HILL'] })).toMatchObject({ status: undefined, unknown: 3 })
    expect(judge({ campuses: ['HARBOUR'] })).toMatchObject({ status: 'planned', unknown: 0 })
    expect(judge({ campuses: ['HILL'] })).toMatchObject({ status: undefined, unknown: 0 })
  })
})

describe('grades of all kinds', () => {
  it('an incomplete counts as under way, and as attempted', () => {
    const list = attempts([entry('STAT 101', 'I'), entry('ENVI 101', 'A')])
    expect(list.counted).toMatchObject([
      { course: 'ENVI 101', status: 'earned' },
      { course: 'STAT 101', status: 'underWay', detail: 'incomplete', grade: null }
    ])
    expect(paceOfProgress(list)).toEqual({ completed: 3, attempted: 6, pace: 0.5 })
  })
  it('a pass earns credits without points, no pass earns neither', () => {
    const list = attempts([entry('STAT 101', 'P'), entry('ENVI 101', 'NP')])
    expect(list.counted.map((t) => t.course)).toEqual(['STAT 101'])
    expect(catalog.scale.average(gradedAttempts(list))).toBeUndefined()
  })
  it('what was sat in on gives nothing, takes nothing away, and is in no figure', () => {
    const list = attempts([entry('STAT 101', 'C'), entry('STAT 101', 'AU', { term: termCode('SP27') })])
    expect(list.counted.map((t) => t.grade)).toEqual(['C'])
    expect(list.idle.map((one) => one.why)).toEqual(['audited'])
    expect(paceOfProgress(list)).toEqual({ completed: 3, attempted: 3, pace: 1 })
    const last = attemptsOf(
      {
        ...{ catalog, held: [], planned: [] },
        record: [entry('STAT 101', 'C'), entry('STAT 101', 'AU', { term: termCode('SP27') })],
        repeats: 'last'
      },
      terms
    )
    expect(last.counted.map((t) => t.grade)).toEqual(['C'])
    expect(read({}, [entry('STAT 101', 'AU')]).amounts.earned).toBe(0)
  })
  // Points as registrars commonly publish them on a 4.0 scale (common practice).
  it.each([
    ['A+', 4, 'earned'],
    ['D-', 0.7, 'earned'],
    ['WF', 0, 'failed'],
    ['S', null, 'earned'],
    ['U', null, 'failed'],
    ['IP', null, 'open'],
    ['AU', null, 'audited']
  ])('%s carries %s points and is %s', (grade, points, result) => {
    expect(COMMON_SCALE.meaning(grade)).toMatchObject({ points, result })
  })
  it('an A+ is more than an A where that is asked, a D- less than a D', () => {
    expect(['A+', 'A'].map((grade) => COMMON_SCALE.atLeast(grade, 'A+'))).toEqual([true, false])
    expect(['D', 'D-', 'F'].map((grade) => COMMON_SCALE.atLeast(grade, 'D-'))).toEqual([true, true, false])
    expect(COMMON_SCALE.atLeast('D-', 'D')).toBe(false)
  })
  it('passes without a letter are limited where a program says so', () => {
    const over = { limits: [{ title: 'Passes', from: 'any', credits: 3, grades: ['P'] }] }
    const result = read(over, [entry('ENVI 101', 'P'), entry('ENVI 102', 'P'), entry('ENVI 201', 'B')])
    expect(result.amounts.earned).toBe(6)
    expect(result.outside.map((o) => [o.attempt.course, o.why])).toEqual([['ENVI 102', 'limited']])
    expect(result.limits).toEqual([{ title: 'Passes', credits: 3, used: 3 }])
  })
  it('half credits add up', () => {
    const list = [entry('ENVI 101', 'B', { credits: 1.5 }), entry('ENVI 102', 'B', { credits: 2.5 })]
    expect(read({}, list).amounts).toMatchObject({ earned: 4, needed: 5 })
  })
  it('courses that exclude each other count once, whichever says so', () => {
    const list = attempts([entry('CHEM 115', 'C'), entry('CHEM 101', 'B')])
    expect(list.counted.map((t) => t.course)).toEqual(['CHEM 101'])
    expect(list.idle).toMatchObject([{ why: 'exclusive', by: 'CHEM 101' }])
    expect(attempts([entry('CHEM 115')], [planned('CHEM 101', 'AU27')]).repeats).toHaveLength(1)
  })
  it('of courses that exclude each other the one counts that leaves less open, else the better grade', () => {
    const one = (from: string) =>
      compileProgram(
        spec({ areas: [{ id: 'a', title: 'A', needs: [need(from, { amount: 3, credits: 3 })] }], credits: 3 })
      )
    const record = [entry('CHEM 115', 'C'), entry('CHEM 101', 'B')]
    const counted = (from: string) => {
      const { attempts: list, audits } = auditRecord(
        [one(from)],
        { catalog, record, held: [], planned: [] },
        terms
      )
      return [list.counted.map((t) => t.course), list.idle.map((i) => i.by), audits[0]!.amounts.earned]
    }
    expect(counted('CHEM 115')).toEqual([['CHEM 115'], ['CHEM 115'], 3])
    expect(counted('CHEM 101')).toEqual([['CHEM 101'], ['CHEM 101'], 3])
    expect(counted('CHEM 100+')).toEqual([['CHEM 101'], ['CHEM 101'], 3])
    expect(counted('STAT 101')).toEqual([['CHEM 101'], ['CHEM 101'], 0])
  })
  it('another scale is data', () => {
    const scale = new GradeScale([
      { grade: '10', points: 10, result: 'earned', rank: 10 },
      { grade: '5', points: 5, result: 'failed', rank: 0 }
    ])
    const ten = new Catalog(catalog.courses, scale)
    const list = attemptsOf(
      { catalog: ten, record: [entry('ENVI 101', '10'), entry('ENVI 102', '5')], held: [], planned: [] },
      terms
    )
    expect(scale.average(gradedAttempts(list))).toBe(7.5)
    expect(() => scale.meaning('A')).toThrow('the grade scale has no "A"')
  })
})

describe('terms', () => {
  it.each([
    [12, 'fullTime'],
    [11.5, 'threeQuarterTime'],
    [9, 'threeQuarterTime'],
    [8.5, 'halfTime'],
    [6, 'halfTime'],
    [5, 'lessThanHalfTime']
  ])(
    'of %d credits are %s (34 CFR 668.2: 12 semester credits, three quarters and half of it)',
    (credits, status) => {
      expect(enrolmentOf(credits)).toBe(status)
    }
  )
})

describe('what may be shared', () => {
  it('is told as the reason where a course counts in the other program', () => {
    const degree = compileProgram(
      spec({
        areas: [{ id: 'a', title: 'A', needs: [need('STAT 101 or STAT 102', { amount: 6, credits: 6 })] }],
        credits: 6
      })
    )
    const minor = compileProgram(
      spec({
        code: 'MIN',
        kind: 'minor',
        credits: 6,
        mayShare: 3,
        areas: [{ id: 'm', title: 'M', needs: [need('STAT *', { amount: 6, credits: 6 })] }]
      })
    )
    const list = attempts([entry('STAT 101'), entry('STAT 102')])
    const [, second] = auditAll([degree, minor], list, catalog)
    expect(second!.amounts.earned).toBe(3)
    expect(second!.outside).toMatchObject([{ why: 'sharing' }])
  })
})

describe('what could still be taken', () => {
  it('is no repeat for a need that what is earned meets by its grade', () => {
    // STAT 101 with a D has to count for the pair: only then can ENVI 101 complete it. The certificate would have it again.
    const pair = need('ENVI 101 or STAT 101', { id: 'pair', amount: 3, credits: 3, subjects: 2 })
    const better = need('any', { id: 'better', amount: 6, credits: 6, leastGrade: 'C' })
    const dead = need('STAT 102', { id: 'dead', measure: 'courses', amount: 2, credits: 6 })
    const [first, second] = [
      [need('any', { amount: 4, credits: 4 }), pair],
      [better, dead]
    ]
    const programs = [
      spec({ credits: 7, areas: [{ id: 'a', title: 'A', needs: first }] }),
      spec({ code: 'CERT', credits: 12, areas: [{ id: 'b', title: 'B', needs: second }] })
    ].map((one) => compileProgram(one))
    const four = ['ENVI 101', 'ENVI 102', 'ENVI 201', 'ENVI 301', 'STAT 101']
    const of = new Catalog([
      ...four.map((code) => course(code, { credits: 4 })),
      ...['STAT 102', 'STAT 301'].map((code) => course(code, { credits: 3 }))
    ])
    const record = [entry('STAT 101', 'D', { credits: 4 })]
    const { audits } = auditRecord(programs, { catalog: of, record, held: [], planned: [] }, terms)
    const needs = audits.flatMap((audit) => audit.areas.flatMap((area) => area.needs))
    expect(needs.map((one) => [one.need.id, one.evidence.length, one.beyond])).toEqual([
      ['n', 0, false],
      ['pair', 1, false],
      ['better', 0, false],
      ['dead', 0, true]
    ])
  })
})
