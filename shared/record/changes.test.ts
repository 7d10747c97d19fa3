import { describe, expect, it } from 'vitest'
import { courseCode, studentId, termCode, type SectionCode } from '#core/ids'
import type { RouteChange } from '#core/findings'
import type { Section } from '#core/week'
import { planned } from '../../core/testing/build'
import type { Suggestion } from '#shared/advising/suggestions'
import type { StudentView } from '#shared/record/responses'
import type { RouteView } from '#shared/route/responses'
import type { DraftWeek } from '#shared/week/responses'
import { addressOf, NEW_WEEK, requestOf, routeOf, type Change } from './changes'
import { isSettledByItself, settledWith, shownWith } from './shownChanges'
import { titleOf } from './changeTitles'

const AUTUMN = termCode('AU27')
const ENVI = courseCode('ENVI 310')
const route = (over: Partial<RouteView> = {}): RouteView => ({
  id: 7,
  name: 'Main route',
  note: null,
  chosen: true,
  version: 4,
  changedAt: 0,
  changedBy: 'Imke Varga',
  advisorMayEdit: false,
  seen: null,
  courses: [planned('MUSI 101', 'SP28')],
  undo: null,
  redo: null,
  ...over
})
const draft = (over: Partial<DraftWeek> = {}): DraftWeek => ({
  id: 3,
  term: AUTUMN,
  name: 'First draft',
  note: null,
  goingWith: true,
  sections: [],
  exchanges: [],
  asPicked: {},
  shareKey: null,
  ...over
})
const section = (code: string, course = ENVI) =>
  ({ code: code as SectionCode, course, term: AUTUMN, meetings: [], instructors: [] }) as unknown as Section
/** A record with nothing in it but what is said. */
const record = (over: object = {}): StudentView =>
  ({
    student: { id: studentId(1), name: 'Imke Varga' },
    route: route(),
    routes: [route(), route({ id: 8, name: 'Another', chosen: false, courses: [] })],
    drafts: [],
    sections: [],
    marks: [],
    termNotes: [],
    keepFree: [],
    exceptions: [],
    habits: { wishes: [], travelHolds: false },
    calendarKey: 'secret',
    ...over
  }) as unknown as StudentView
const term = (code: string) => ({ AU27: 'Autumn 2027', SP28: 'Spring 2028' })[code] ?? code

const addition: RouteChange = { kind: 'add', planned: planned('ENVI 310', 'AU27') }
const add: Change = { kind: 'route', route: 7, change: addition }

describe('how a change is sent', () => {
  it('goes to the record of its student, with the version of its route', () => {
    const request = requestOf(add, 4)
    expect(addressOf(studentId(1), request)).toBe('/api/students/1/route')
    expect(request).toMatchObject({ method: 'POST', body: { route: 7, version: 4, change: addition } })
  })
  it('names courses as addresses do, and a term to be taken back in its query', () => {
    expect(requestOf({ kind: 'mark', course: ENVI, said: { starred: true }, at: 0 }, 0).where).toBe(
      'courses/ENVI-310'
    )
    expect(requestOf({ kind: 'withdrawSignOff', term: AUTUMN }, 0)).toEqual({
      method: 'DELETE',
      where: 'sign-off',
      query: { term: 'AU27' }
    })
  })
  it('asks for the week gone with where the one picked in has no number yet', () => {
    const picks: Change = { kind: 'picks', term: AUTUMN, week: NEW_WEEK, picks: [], held: [] }
    expect(requestOf(picks, 0).body).toMatchObject({ week: null })
  })
  it('has a route only where it has a version', () => {
    expect(routeOf(add)).toBe(7)
    expect(routeOf({ kind: 'withdrawReview', term: AUTUMN })).toBeUndefined()
  })
})

const signOff: Change = {
  kind: 'signOff',
  said: {
    ...{ term: AUTUMN, creditsLeast: 13, creditsMost: 18, alternatives: [], conditions: [] },
    until: null
  }
}

describe('what a change of a route makes of the record', () => {
  it('is on the route at once, chosen or not, and can be undone', () => {
    const shown = shownWith(record(), add)
    expect(shown.route.courses.map((one) => one.course)).toEqual(['MUSI 101', 'ENVI 310'])
    expect(shown.routes[0]).toEqual(shown.route)
    expect(shown.route.undo).toEqual(addition)
    const other = shownWith(record(), { ...add, route: 8 } as Change)
    expect(other.routes[1]!.courses).toHaveLength(1)
    expect(other.route.courses).toHaveLength(1)
  })
  it('is nothing where it can no longer be made', () => {
    const gone: Change = {
      kind: 'route',
      route: 7,
      change: { kind: 'remove', planned: planned('ENVI 310', 'AU27') }
    }
    expect(shownWith(record(), gone).route).toEqual(route())
  })
  it('takes back what is undone', () => {
    const undo: Change = { kind: 'step', route: 7, step: 'undo', change: addition }
    expect(shownWith(shownWith(record(), add), undo).route.courses).toEqual(route().courses)
  })
  it('has the version that the server made, once it has answered', () => {
    const answer = { route: 7, version: 5, changedAt: 9, changedBy: 'Orla Denholt', undo: null, redo: null }
    const settled = settledWith(record(), add, answer)
    expect(settled.route).toMatchObject({ version: 5, changedBy: 'Orla Denholt', undo: null })
    expect(settled.route.courses).toHaveLength(2)
    expect(isSettledByItself(add)).toBe(true)
  })
  it('answers suggestions in order, and leaves one that cannot be made as it is', () => {
    const music = planned('MUSI 101', 'AU27')
    const suggests = (id: number, change: RouteChange, before = [music]): Suggestion => ({
      ...{ id, number: id, by: 'Orla Denholt', own: false, at: 0, route: 7, why: null },
      ...{ change, before, state: 'waiting', answer: null }
    })
    const moves: RouteChange = { kind: 'move', course: music.course, from: AUTUMN, to: termCode('SP28') }
    const suggestions = [
      suggests(1, addition, []),
      suggests(2, { kind: 'move', course: ENVI, from: AUTUMN, to: termCode('SP28') }, [
        planned('ENVI 310', 'AU27')
      ]),
      suggests(3, { ...moves, course: courseCode('ENDA 310') }, [planned('ENDA 310', 'AU27')])
    ]
    const said: Change = {
      ...{ kind: 'answerSuggestions', route: 7, suggestions: [1, 2, 3], answer: 'accepted' },
      ...{ words: null, by: 'Imke Varga', at: 5 }
    }
    const states = (view: StudentView) => view.suggestions.map((one) => one.state)
    const shown = shownWith(record({ suggestions }), said)
    expect(states(shown)).toEqual(['accepted', 'accepted', 'waiting'])
    expect(shown.route.courses.map(({ course, term: at }) => `${course} ${at}`)).toEqual([
      'MUSI 101 SP28',
      'ENVI 310 SP28'
    ])
    // The server knows best which could be made.
    const made = { version: 5, changedAt: 5, changedBy: 'Imke Varga', undo: addition, redo: null }
    const gone = [2, 3].map((suggestion) => ({ suggestion, why: 'of late' }))
    const settled = settledWith(record({ suggestions }), said, { route: 7, version: 5, made, gone })
    expect(states(settled)).toEqual(['accepted', 'waiting', 'waiting'])
    expect(settled.route).toMatchObject({ version: 5, undo: addition })
    const declined = shownWith(record({ suggestions }), { ...said, answer: 'declined' } as Change)
    expect(states(declined)).toEqual(['declined', 'declined', 'declined'])
    expect(declined.route).toEqual(route())
  })
  it('is on the route that is made with it, where there was none', () => {
    const nothing = record({ route: route({ id: null, version: 0, courses: [] }), routes: [] })
    const change = { ...add, route: null } as Change
    const shown = shownWith(nothing, change)
    expect(shown.route.courses).toHaveLength(1)
    const settled = settledWith(nothing, change, { route: 12, version: 1 })
    expect(settled.route).toMatchObject({ id: 12, version: 1 })
  })
  it('chooses one route and no other', () => {
    const shown = shownWith(record(), { kind: 'describeRoute', route: 8, said: { chosen: true } })
    expect(shown.route.id).toBe(8)
    expect(shown.routes.map((one) => [one.id, one.chosen])).toEqual([
      [8, true],
      [7, false]
    ])
  })
})

describe('what a pick makes of the record', () => {
  const pick = (code: string, over: object = {}): Change => ({
    kind: 'picks',
    term: AUTUMN,
    week: 3,
    picks: [{ course: ENVI, sections: [section(code)] }],
    held: [],
    ...over
  })
  it('takes the place of what was picked of the course', () => {
    const before = record({
      drafts: [draft({ sections: ['20001' as SectionCode] })],
      sections: [section('20001')]
    })
    const shown = shownWith(before, pick('20002'))
    expect(shown.drafts[0]!.sections).toEqual(['20002'])
    expect(shown.sections.map((one) => one.code)).toEqual(['20001', '20002'])
  })
  it('is an exchange where a seat of the course is held', () => {
    const shown = shownWith(record({ drafts: [draft()] }), pick('20002', { held: [ENVI] }))
    expect(shown.drafts[0]!.exchanges).toEqual(['ENVI 310'])
    const back = pick('20002', { picks: [{ course: ENVI, sections: [] }] })
    expect(shownWith(shown, back).drafts[0]).toMatchObject({ exchanges: [], sections: [] })
  })
  it('makes a week where there is none, that has its number from the answer, and picks follow into it', () => {
    const first = pick('20002', { week: null })
    const shown = shownWith(record(), first)
    expect(shown.drafts[0]).toMatchObject({ id: NEW_WEEK, goingWith: true, sections: ['20002'] })
    const second = pick('20003', {
      week: NEW_WEEK,
      picks: [{ course: courseCode('MUSI 101'), sections: [section('20003', courseCode('MUSI 101'))] }]
    })
    const settled = settledWith(record(), first, { week: 12 })
    expect(settled.drafts.map((one) => one.id)).toEqual([12])
    const both = settledWith(settled, second, { week: 12 })
    expect(both.drafts).toHaveLength(1)
    expect(both.drafts[0]).toMatchObject({ id: 12, sections: ['20002', '20003'] })
  })
})

describe('what other changes make of the record', () => {
  const shown = (change: Change, over: object = {}) => shownWith(record(over), change)
  it('goes with one draft week of a term', () => {
    const drafts = [draft(), draft({ id: 4, goingWith: false }), draft({ id: 5, term: termCode('SP28') })]
    const { drafts: now } = shown({ kind: 'changeWeek', week: 4, said: { goingWith: true } }, { drafts })
    expect(now.map((one) => one.goingWith)).toEqual([false, true, true])
    expect(shown({ kind: 'dropWeek', week: 4 }, { drafts }).drafts).toHaveLength(2)
  })
  it('keeps what is not said of a mark', () => {
    const marks = [{ course: ENVI, starred: true, note: 'hard', lookedAt: 4 }]
    const mark = (said: object): Change => ({ kind: 'mark', course: ENVI, said, at: 9 })
    expect(shown(mark({ note: null }), { marks }).marks).toEqual([{ ...marks[0], note: null }])
    expect(shown(mark({ looked: true }), { marks }).marks[0]).toMatchObject({ starred: true, lookedAt: 9 })
  })
  it('takes a note away that is empty', () => {
    const termNotes = [{ term: AUTUMN, text: 'abroad', by: 'Imke Varga' }]
    const write = (text: string | null): Change => ({
      kind: 'termNote',
      term: AUTUMN,
      text,
      by: 'Imke Varga'
    })
    expect(shown(write(null), { termNotes }).termNotes).toEqual([])
    expect(shown(write('at home'), { termNotes }).termNotes).toEqual([{ ...termNotes[0], text: 'at home' }])
  })
  it('says nothing of what only the server knows', () => {
    const before = record()
    expect(shownWith(before, signOff)).toBe(before)
    expect(isSettledByItself(signOff)).toBe(false)
  })
})

describe('what is said in the talk and of a review', () => {
  const at = 1_800_000_000_000
  const shown = (change: Change, over: object) => shownWith(record(over), change)
  const review = { term: AUTUMN, note: 'as it is', answers: [], askedAt: at, answer: null }
  it('is asked at once, once for a term, and withdrawn', () => {
    const ask: Change = { kind: 'askReview', term: AUTUMN, note: 'again', answers: [], at: at + 1 }
    expect(shown(ask, { reviews: [review] }).reviews).toEqual([{ ...review, note: 'again', askedAt: at + 1 }])
    expect(shown({ kind: 'withdrawReview', term: AUTUMN }, { reviews: [review] }).reviews).toEqual([])
    expect(requestOf(ask, 0)).toEqual({
      method: 'POST',
      where: 'review',
      body: { term: 'AU27', note: 'again', answers: [] }
    })
  })
  it('is answered with what is missing', () => {
    const notYet: Change = { kind: 'notYet', term: AUTUMN, missing: 'writing', by: 'Orla Denholt', at }
    const other = { ...review, term: termCode('SP28') }
    expect(shown(notYet, { reviews: [review, other] }).reviews).toEqual([
      { ...review, answer: { by: 'Orla Denholt', at, missing: 'writing' } },
      other
    ])
  })
  it('is read up to a remark, settled and opened', () => {
    const remark = (id: number, own: boolean) => ({ id, own, by: '', text: '', at })
    const thread = {
      id: 4,
      unread: 2,
      settled: null,
      remarks: [remark(1, false), remark(2, true), remark(3, false)]
    }
    const talk = [thread, { ...thread, id: 5 }]
    const read = shown({ kind: 'readThread', thread: 4, upTo: 1 }, { talk }).talk
    expect(read.map((one) => one.unread)).toEqual([1, 2])
    const settle = (settled: boolean): Change => ({
      kind: 'settleThread',
      thread: 5,
      settled,
      by: 'Imke Varga',
      at
    })
    const settled = shown(settle(true), { talk })
    expect(settled.talk.map((one) => one.settled)).toEqual([null, { by: 'Imke Varga', at }])
    expect(shownWith(settled, settle(false)).talk.map((one) => one.settled)).toEqual([null, null])
  })
  it('is agreed, ticked off and taken out', () => {
    const agreed = [{ id: 1, done: null }]
    const tick = (done: boolean): Change => ({ kind: 'tickAgreed', line: 1, done, by: 'Imke Varga', at })
    const ticked = shown(tick(true), { agreed })
    expect(ticked.agreed[0]!.done).toEqual({ by: 'Imke Varga', at })
    expect(shownWith(ticked, tick(false)).agreed[0]!.done).toBeNull()
    expect(shown({ kind: 'dropAgreed', line: 1 }, { agreed }).agreed).toEqual([])
  })
})

describe('what a change is called', () => {
  it.each<[Change, string]>([
    [add, 'Add ENVI 310 to Autumn 2027'],
    [signOff, 'the sign-off of Autumn 2027'],
    [
      { kind: 'picks', term: AUTUMN, week: 3, picks: [{ course: ENVI, sections: [] }], held: [] },
      'taking off ENVI 310'
    ],
    [{ kind: 'changeWeek', week: 3, said: { goingWith: true } }, 'going with another draft week'],
    [
      { kind: 'askFor', said: { kind: 'waiver', course: ENVI, reason: 'because' } },
      'asking to be excused from the prerequisite'
    ]
  ])('%o', (change, title) => {
    expect(titleOf(change, term)).toBe(title)
  })
})
