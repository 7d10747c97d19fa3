import { describe, expect, it } from 'vitest'
import { Catalog } from '../catalog'
import { auditProgram, attemptsOf, type PlannedCourse, type Program, type RecordEntry } from '../degree'
import type { Finding, RouteChange } from '../findings'
import { courseCode, termCode } from '../ids'
import type { Section } from '../week'
import { course, entry, meeting, planned, program, section, term } from '../testing/build'
import { applyChange, coursesBefore, differenceOf, historyOf, inverse, type Step } from './change'
import { checkRoute } from './checks'
import { countedOn, blockers, termLoad, type RouteContext } from './context'
import { climbOf, routeFinish } from './climb'
import { Offered, type OfferedTo } from './offered'
import { slackOf } from './slack'

const catalog = new Catalog([
  course('STAT 110'),
  course('STAT 212', { prerequisite: 'STAT 110 (C)' }),
  course('STAT 330', { prerequisite: 'STAT 212' }),
  course('ENDA 410', { prerequisite: 'STAT 330 and standing junior' }),
  course('HYDR 331', { prerequisite: 'with HYDR 332', offered: { seasons: ['autumn'], years: 'every' } }),
  course('HYDR 332', { offered: { seasons: ['autumn'], years: 'every' } }),
  course('FELD 390', { offered: { seasons: ['summer'], years: 'every' } }),
  course('ARTS 120', { credits: 16 })
])
const terms = ['AU26', 'SP27', 'SU27', 'AU27', 'SP28', 'SU28', 'AU28', 'SP29'].map((code) => term(code))
const anything = program({ from: 'any', measure: 'credits', amount: 120 })

function context(
  plan: PlannedCourse[],
  record: RecordEntry[] = [],
  over: Partial<RouteContext> = {},
  p: Program = anything
) {
  const attempts = attemptsOf({ catalog, record, held: [], planned: plan }, terms)
  return {
    catalog,
    terms,
    plannable: new Set(['SU27', 'AU27', 'SP28', 'SU28', 'AU28', 'SP29']),
    student: { standing: 'sophomore', programs: ['TEST'], tests: {}, graded: [] },
    attempts,
    planned: plan,
    running: new Map(),
    loadMost: () => 18,
    audits: [auditProgram(p, attempts, catalog)],
    ...over
  } satisfies RouteContext
}
const check = (...args: Parameters<typeof context>) => checkRoute(context(...args))
const all = (term: string) => termCode(term).length > 0

/** The findings after taking a way out. */
function after(
  plan: PlannedCourse[],
  record: RecordEntry[],
  way: RouteChange,
  over?: Partial<RouteContext>
): Finding[] {
  const changed = applyChange(plan, way, all)
  if (!changed.ok) throw new Error(changed.fault)
  return check(changed.courses, record, over)
}

describe('a waived prerequisite', () => {
  const plan = [planned('STAT 212', 'AU27'), planned('HYDR 331', 'AU27')]
  const student = (waived: string[]) => ({
    student: {
      standing: 'sophomore' as const,
      programs: ['TEST'],
      tests: {},
      graded: [],
      waived: new Set(waived.map((code) => courseCode(code)))
    }
  })
  const codes = (waived: string[]) => check(plan, [], student(waived)).map((one) => one.code)
  it('settles the finding of its course, not of another', () => {
    expect(codes([])).toEqual(['corequisite', 'prerequisite'])
    expect(codes(['STAT 212'])).toEqual(['corequisite'])
    expect(codes(['STAT 330'])).toEqual(['corequisite', 'prerequisite'])
  })
  it('leaves the corequisite asked for', () => {
    expect(codes(['HYDR 331'])).toEqual(['corequisite', 'prerequisite'])
  })
})

describe('changes of a route', () => {
  it('can be taken back in a row, to what was planned before them', () => {
    const start = [planned('STAT 212', 'AU27'), planned('STAT 330', 'SP28')]
    const changes: RouteChange[] = [
      { kind: 'move', course: courseCode('STAT 330'), from: termCode('SP28'), to: termCode('AU28') },
      { kind: 'remove', planned: planned('STAT 212', 'AU27') },
      { kind: 'add', planned: planned('ARTS 120', 'SP28', { credits: 16 }) }
    ]
    let now: PlannedCourse[] = start
    for (const change of changes) {
      const changed = applyChange(now, change, all)
      if (!changed.ok) throw new Error(changed.fault)
      now = changed.courses
    }
    const then = coursesBefore(now, changes)
    expect(differenceOf(then, start)).toEqual({ added: [], removed: [], moved: [] })
    expect(differenceOf(coursesBefore(now, changes.slice(1)), now)).toEqual({
      added: [changes[2]!.kind === 'add' && changes[2]!.planned],
      removed: [planned('STAT 212', 'AU27')],
      moved: []
    })
  })
  const plan = [planned('STAT 110', 'AU27')]
  const changes: RouteChange[] = [
    { kind: 'add', planned: planned('STAT 212', 'SP28') },
    { kind: 'remove', planned: plan[0]! },
    { kind: 'move', course: courseCode('STAT 110'), from: termCode('AU27'), to: termCode('SP28') },
    {
      kind: 'edit',
      course: courseCode('STAT 110'),
      term: termCode('AU27'),
      from: { credits: 3, note: null, locked: false },
      to: { credits: 3, note: 'with the lab', locked: true }
    },
    {
      kind: 'several',
      changes: [
        { kind: 'remove', planned: plan[0]! },
        { kind: 'add', planned: planned('STAT 212', 'AU27') },
        { kind: 'move', course: courseCode('STAT 212'), from: termCode('AU27'), to: termCode('SP28') }
      ]
    }
  ]
  it.each(changes)('are taken back by their inverse: $kind', (change) => {
    const there = applyChange(plan, change, all)
    const back = there.ok && applyChange(there.courses, inverse(there.made), all)
    expect(back).toMatchObject({ ok: true, courses: plan })
  })
  it('are refused where they put something into a closed term, before anything else', () => {
    expect(applyChange(plan, changes[2]!, (t) => t !== 'SP28')).toMatchObject({
      ok: false,
      fault: 'termClosed'
    })
  })
  it('take out of a closed term what is in it', () => {
    for (const change of [changes[1]!, changes[2]!])
      expect(applyChange(plan, change, (t) => t !== 'AU27').ok).toBe(true)
  })
  it('say in full what they took out, so that nothing is lost by undoing', () => {
    const noted = planned('STAT 110', 'AU27', { note: 'ask about labs', locked: true })
    const gone = applyChange([noted], { kind: 'remove', planned: plan[0]! }, all)
    expect(gone).toMatchObject({ ok: true, courses: [], made: { planned: noted } })
  })
  it('go together or not at all', () => {
    const both: RouteChange = {
      kind: 'several',
      changes: [
        { kind: 'remove', planned: plan[0]! },
        { kind: 'remove', planned: plan[0]! }
      ]
    }
    expect(applyChange(plan, both, all)).toMatchObject({ ok: false, fault: 'notInTerm' })
    const same = { credits: 3, note: null, locked: false }
    const nothing = {
      kind: 'edit',
      course: plan[0]!.course,
      term: plan[0]!.term,
      from: same,
      to: same
    } as const
    expect(applyChange(plan, nothing, all)).toMatchObject({ ok: false, fault: 'nothingChanged' })
  })
  it('are undone and done again in order, until something else is done', () => {
    const step = (version: number, kind: Step['kind'], of: number | null = null): Step => ({
      version,
      kind,
      of,
      change: changes[0]!
    })
    const [one, two] = [step(2, 'do'), step(3, 'do')]
    expect(historyOf([])).toEqual({ undo: undefined, redo: undefined })
    expect(historyOf([one, two])).toEqual({ undo: two, redo: undefined })
    expect(historyOf([one, two, step(4, 'undo', 3)])).toEqual({ undo: one, redo: two })
    expect(historyOf([one, two, step(4, 'undo', 3), step(5, 'undo', 2)])).toEqual({
      undo: undefined,
      redo: one
    })
    expect(historyOf([one, two, step(4, 'undo', 3), step(5, 'redo', 3)])).toEqual({
      undo: two,
      redo: undefined
    })
    const other = step(5, 'do')
    expect(historyOf([one, two, step(4, 'undo', 3), other])).toEqual({ undo: other, redo: undefined })
  })
  it('are told apart as added, taken out and moved', () => {
    const before = [planned('STAT 110', 'AU27'), planned('STAT 212', 'SP28')]
    const now = [planned('STAT 212', 'AU28'), planned('STAT 330', 'AU28')]
    expect(differenceOf(before, now)).toEqual({
      added: [now[1]],
      removed: [before[0]],
      moved: [{ course: 'STAT 212', from: 'SP28', to: 'AU28' }]
    })
  })
  it('do not place a course twice in a term, nor take out what is not there', () => {
    expect(applyChange(plan, { kind: 'add', planned: plan[0]! }, all)).toMatchObject({
      ok: false,
      fault: 'alreadyInTerm'
    })
    expect(applyChange([], changes[1]!, all)).toMatchObject({ ok: false, fault: 'notInTerm' })
    expect(applyChange([], changes[2]!, all)).toMatchObject({ ok: false, fault: 'notInTerm' })
  })
})

describe('checks of a route', () => {
  it('find nothing wrong with a legal one', () => {
    expect(check([planned('STAT 110', 'AU27'), planned('STAT 212', 'SP28')])).toEqual([])
  })
  it('want a prerequisite before, not in the same term', () => {
    const found = check([planned('STAT 110', 'AU27'), planned('STAT 212', 'AU27')])
    expect(found).toMatchObject([
      { code: 'prerequisite', course: 'STAT 212', missing: { course: 'STAT 110' } }
    ])
  })
  it('take what is under way as passed by then', () => {
    const record = [entry('STAT 110', null, { term: termCode('SP27') })]
    expect(check([planned('STAT 212', 'AU27')], record)).toEqual([])
  })
  it('want the grade', () => {
    expect(check([planned('STAT 212', 'AU27')], [entry('STAT 110', 'D')])).toMatchObject([
      { code: 'prerequisite' }
    ])
  })
  it('count credits of earlier terms toward standing', () => {
    const record = [entry('STAT 330', 'B', { credits: 60 })]
    const student = { standing: 'freshman' as const, programs: [], tests: {}, graded: [] }
    expect(check([planned('ENDA 410', 'AU27')], record, { student })).toEqual([])
  })
  it('know the season, and the sections once they are published', () => {
    expect(check([planned('FELD 390', 'AU27')])).toMatchObject([{ code: 'notOffered', known: 'pattern' }])
    const published = terms.map((t) => (t.code === 'AU27' ? { ...t, published: true } : t))
    const running = new Map([['AU27', new Set<string>()]])
    const found = check([planned('STAT 110', 'AU27')], [], { terms: published, running })
    expect(found).toMatchObject([{ code: 'notOffered', known: 'sections' }])
  })
  it('ask for a corequisite in the same term', () => {
    expect(check([planned('HYDR 331', 'AU27')])).toMatchObject([{ code: 'corequisite' }])
    expect(check([planned('HYDR 331', 'AU27'), planned('HYDR 332', 'AU27')])).toEqual([])
  })
  it('tell what is done already and what counts nowhere', () => {
    expect(check([planned('STAT 110', 'AU27')], [entry('STAT 110', 'C')])).toMatchObject([
      { code: 'alreadyThere' }
    ])
    const only = program({ from: 'STAT 110' })
    expect(check([planned('FELD 390', 'SU28')], [], {}, only)).toMatchObject([
      { code: 'outside', why: 'notAccepted' }
    ])
  })
  it('say nothing of a course that counts nowhere where the prerequisite of another one rests on it', () => {
    const only = program({ from: 'STAT 212' })
    const step = planned('STAT 110', 'AU27')
    expect(check([step], [], {}, only)).toMatchObject([{ code: 'outside', course: 'STAT 110' }])
    expect(check([step, planned('STAT 212', 'SP28')], [], {}, only)).toEqual([])
    // Taken again for the grade that is asked for, too.
    const low = [entry('STAT 110', 'D')]
    expect(check([step, planned('STAT 212', 'SP28')], low, {}, only)).toEqual([])
    expect(check([step], low, {}, only)).toHaveLength(1)
  })
  it('compare the load of a term with the limit', () => {
    const plan = [planned('ARTS 120', 'AU27', { credits: 16 }), planned('STAT 110', 'AU27')]
    const found = check(plan)
    expect(found).toMatchObject([{ code: 'load', credits: 19, most: 18 }])
    expect(termLoad(context(plan).attempts, termCode('AU27'))).toBe(19)
  })
  it('know terms spent elsewhere and terms that have begun', () => {
    const over = { away: new Map([['AU27', 'exchange' as const]]) }
    expect(check([planned('STAT 110', 'AU27')], [], over)).toMatchObject([{ code: 'away', why: 'exchange' }])
    const stale = { stale: [planned('STAT 110', 'SP27')] }
    expect(check([], [], stale)).toMatchObject([{ code: 'begun', course: 'STAT 110' }])
  })
  it('compare a term with what the student can carry', () => {
    const plan = [planned('STAT 110', 'AU27'), planned('ARTS 120', 'SP28', { credits: 16 })]
    const light = check(plan, [], { loadLeast: () => 12 })
    expect(light).toMatchObject([{ code: 'lightLoad', term: 'AU27', credits: 3, least: 12 }])
    // Two hours a credit: 16 credits are 32 hours.
    const hours = check(plan, [], { hoursMost: () => 30 })
    expect(hours).toMatchObject([{ code: 'hours', term: 'SP28', hours: 32, most: 30 }])
    expect(check(plan, [], { hoursMost: () => 32 })).toEqual([])
  })
  it('compare the finish with the wanted one, once everything is mapped', () => {
    const both = program({ from: 'STAT 110', measure: 'courses', amount: 1 })
    const target = { target: termCode('AU27') }
    expect(check([planned('STAT 110', 'SP28')], [], target, both)).toMatchObject([
      { code: 'late', term: 'SP28', target: 'AU27' }
    ])
    expect(check([planned('STAT 110', 'AU27')], [], target, both)).toEqual([])
    expect(check([], [], target, both)).toEqual([])
    // Wanting to finish when the route does settles it.
    expect(check([planned('STAT 110', 'SP28')], [], { target: termCode('SP28') }, both)).toEqual([])
  })
  it('say what has no place, once a term to finish in is wanted and something is planned', () => {
    const two = program({ from: 'STAT *', measure: 'courses', amount: 2, credits: 6 })
    const plan = [planned('STAT 110', 'AU27')]
    expect(check(plan, [], {}, two)).toEqual([])
    expect(check(plan, [], { target: termCode('SP28') }, two)).toEqual([
      { code: 'needLeft', term: 'SP28', credits: 3, ways: [] }
    ])
    const all = [...plan, planned('STAT 212', 'SP28')]
    expect(check(all, [], { target: termCode('SP28') }, two)).toEqual([])
  })
  it('assume a passing grade of what is under way, and say which courses count on it', () => {
    const record = [entry('STAT 110', null, { term: termCode('SP27') })]
    const plan = [planned('STAT 212', 'AU27'), planned('STAT 330', 'SP28')]
    expect(check(plan, record)).toEqual([])
    expect(countedOn(context(plan, record))).toMatchObject([
      { leaf: { course: 'STAT 110', leastGrade: 'C' }, courses: ['STAT 212'] }
    ])
    expect(countedOn(context(plan, [entry('STAT 110')]))).toEqual([])
  })
  it('offer another course of the same need where one may not stand', () => {
    const need = program({ from: 'FELD 390 or STAT 110', measure: 'courses', amount: 1 })
    const [found] = check([planned('FELD 390', 'AU27')], [], {}, need)
    expect(found!.ways).toContainEqual({
      kind: 'several',
      changes: [
        { kind: 'remove', planned: planned('FELD 390', 'AU27') },
        { kind: 'add', planned: planned('STAT 110', 'AU27') }
      ]
    })
  })
  it('offer only ways that settle the finding', () => {
    const cases: [PlannedCourse[], RecordEntry[], Partial<RouteContext>?][] = [
      [[planned('STAT 212', 'SP28')], []],
      [[planned('STAT 110', 'SP28'), planned('STAT 212', 'AU27')], []],
      [[planned('STAT 330', 'AU28'), planned('STAT 110', 'AU27')], []],
      [[planned('HYDR 331', 'AU27')], []],
      [[planned('FELD 390', 'AU27')], []],
      [[planned('STAT 110', 'AU27')], [entry('STAT 110', 'C')]],
      [[planned('ARTS 120', 'AU27', { credits: 16 }), planned('STAT 110', 'AU27')], []],
      [[planned('STAT 110', 'AU27')], [], { away: new Map([['AU27', 'leave']]) }],
      [
        [planned('ARTS 120', 'AU27', { credits: 16 }), planned('STAT 110', 'AU27')],
        [],
        { hoursMost: () => 36 }
      ],
      [
        [
          planned('STAT 110', 'AU27'),
          planned('ARTS 120', 'SP28', { credits: 9 }),
          planned('FELD 390', 'SU28')
        ],
        [],
        { loadLeast: (t) => (t.code === 'AU27' ? 10 : 0) }
      ]
    ]
    let tried = 0
    for (const [plan, record, over] of cases) {
      for (const finding of check(plan, record, over)) {
        expect(finding.ways.length).toBeGreaterThan(0)
        for (const way of finding.ways) {
          tried++
          const left = after(plan, record, way, over)
          const same = left.filter(
            (f) =>
              f.code === finding.code &&
              ('course' in f ? f.course : f.term) === ('course' in finding ? finding.course : finding.term)
          )
          expect(same).toEqual([])
        }
      }
    }
    expect(tried).toBeGreaterThan(12)
  })
  it('name every blocker of a place, and the past', () => {
    expect(blockers(context([]), courseCode('STAT 212'), terms[0]!)).toEqual([{ code: 'past' }])
    expect(blockers(context([]), courseCode('HYDR 331'), terms[4]!).map((o) => o.code)).toEqual([
      'notOffered',
      'corequisite'
    ])
  })
})

describe('the climb', () => {
  const read = (p: Program, plan: PlannedCourse[] = [planned('STAT 330', 'AU27')]) => {
    const record = [entry('STAT 110', 'B'), entry('STAT 212', null, { term: termCode('SP27') })]
    return context(plan, record, {}, p).audits
  }
  const nine = program({ from: 'STAT *', measure: 'credits', amount: 9 })
  it('sums credits by term and leaves out an empty summer', () => {
    const climb = climbOf(read(nine)[0], terms)
    expect(climb.points.map((p) => [p.term.code, p.reached, p.status])).toEqual([
      ['AU26', 3, 'earned'],
      ['SP27', 6, 'underWay'],
      ['AU27', 9, 'ahead']
    ])
  })
  it('reaches what the audit says, no more where a course is larger than what it is for', () => {
    const audits = read(program({ from: 'STAT *', measure: 'credits', amount: 8 }))
    const { earned, underWay, planned: ahead } = audits[0]!.amounts
    expect(earned + underWay + ahead).toBe(8)
    expect(climbOf(audits[0], terms).points.at(-1)!.reached).toBe(8)
  })
  it('has no points without courses', () => {
    expect(climbOf(undefined, terms).points).toEqual([])
  })
  it('finishes with the last course that counts, and not while anything is needed', () => {
    expect(routeFinish(read(nine), terms)?.code).toBe('AU27')
    expect(
      routeFinish(read(program({ from: 'STAT *', measure: 'credits', amount: 10 })), terms)
    ).toBeUndefined()
    // Free to take, and counting toward nothing: it does not move the finish.
    const late = [planned('STAT 330', 'AU27'), planned('FELD 390', 'SU28')]
    expect(routeFinish(read(nine, late), terms)?.code).toBe('AU27')
  })
})

describe('what published terms offer', () => {
  const published = terms.map((one) => (one.code === 'AU27' ? { ...one, published: true } : one))
  const morning = meeting('MW', '9:30', '10:45')
  const noon = meeting('MW', '11:00', '12:15')
  const offer = (...sections: Section[]) => {
    const running = new Map([['AU27', new Set<string>(sections.map((one) => one.course))]])
    const to: OfferedTo = {
      programs: ['TEST'],
      standing: 'sophomore',
      permissions: new Map(),
      kept: [],
      held: new Set()
    }
    return (over: Partial<OfferedTo> = {}) => ({
      terms: published,
      running,
      offered: new Offered(new Map([['AU27', { sections, holidays: new Set<number>() }]]), { ...to, ...over })
    })
  }
  const plan = [planned('STAT 110', 'AU27'), planned('HYDR 332', 'AU27')]
  const seniors = { onlyFor: { programs: [], standings: ['senior'] as const } }

  it('is no finding where each course has a section and a week fits, seats aside', () => {
    const full = { capacity: 20, taken: 20 }
    const over = offer(section('STAT 110', [morning], full), section('HYDR 332', [noon]))()
    expect(check(plan, [], over)).toEqual([])
  })
  it('says that no section of a course is for the student', () => {
    const over = offer(section('STAT 110', [morning], seniors), section('HYDR 332', [noon]))
    expect(check(plan, [], over())).toMatchObject([{ code: 'notForYou', course: 'STAT 110' }])
    expect(check(plan, [], over({ standing: 'senior' }))).toEqual([])
  })
  it('asks for a permission that every section needs, until it is given', () => {
    const one = section('STAT 110', [morning], { permissionNeeded: true })
    const over = offer(one, section('HYDR 332', [noon]))
    expect(check(plan, [], over())).toMatchObject([{ code: 'permissionFirst', course: 'STAT 110' }])
    expect(
      check(plan, [], over({ permissions: new Map([[one.code, new Set(['consent'] as const)]]) }))
    ).toEqual([])
  })
  it('names the courses that leave no week, with the hours kept free that do', () => {
    const clashing = offer(section('STAT 110', [morning]), section('HYDR 332', [morning]))
    expect(check(plan, [], clashing())).toMatchObject([
      { code: 'noWeek', term: 'AU27', courses: ['HYDR 332', 'STAT 110'], hours: [] }
    ])
    const kept = [{ name: 'Rowing', days: [1] as const, start: 9 * 60, end: 10 * 60 }]
    const fitting = offer(section('STAT 110', [morning]), section('HYDR 332', [noon]))
    expect(check(plan, [], fitting({ kept }))).toMatchObject([
      { code: 'noWeek', courses: ['STAT 110'], hours: ['Rowing'] }
    ])
  })
  it('offers only ways out after which a week fits', () => {
    const over = offer(section('STAT 110', [morning]), section('HYDR 332', [morning]))()
    const [found] = check(plan, [], over)
    expect(found!.ways.length).toBeGreaterThan(1)
    for (const way of found!.ways)
      expect(after(plan, [], way, over).filter((one) => one.code === 'noWeek')).toEqual([])
  })
  it('counts a seat that is held as it is, whoever the section is for', () => {
    const mine = section('STAT 110', [morning], seniors)
    const over = offer(mine, section('HYDR 332', [morning]), section('HYDR 332', [noon]))
    expect(check(plan, [], over({ held: new Set([mine.code]) }))).toEqual([])
  })
})

describe('the slack of a planned course', () => {
  const of = (...args: Parameters<typeof context>) =>
    slackOf(context(...args)).map(({ course: code, needs, waits, earliest, latest }) => [
      code,
      needs.join(),
      waits.join(),
      `${earliest?.code ?? '-'} to ${latest?.code ?? '-'}`
    ])
  it('is none on the critical path, and what is left beside it (Kelley and Walker 1959)', () => {
    const plan = [
      planned('STAT 110', 'AU27'),
      planned('STAT 212', 'SP28'),
      planned('STAT 330', 'AU28'),
      planned('ARTS 120', 'AU27')
    ]
    const long = { loadMost: () => 99 }
    // Summers do not run these courses, so the chain of three takes three regular terms.
    expect(of(plan, [], long)).toEqual([
      ['STAT 110', '', 'STAT 212', 'AU27 to AU27'],
      ['STAT 212', 'STAT 110', 'STAT 330', 'SP28 to SP28'],
      ['STAT 330', 'STAT 212', '', 'AU28 to AU28'],
      ['ARTS 120', '', '', 'AU27 to AU28']
    ])
  })
  it('reaches to what waits for the course, and back to what it needs', () => {
    const plan = [planned('STAT 110', 'AU27'), planned('STAT 212', 'AU28'), planned('ARTS 120', 'SP29')]
    expect(of(plan).slice(0, 2)).toEqual([
      ['STAT 110', '', 'STAT 212', 'AU27 to SP28'],
      ['STAT 212', 'STAT 110', '', 'SP28 to SP29']
    ])
  })
  it('is not there for a course that may not stand where it does', () => {
    expect(of([planned('STAT 212', 'AU27')])).toEqual([['STAT 212', '', '', '- to -']])
  })
})
