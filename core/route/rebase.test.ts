import { describe, expect, it } from 'vitest'
import type { PlannedCourse } from '../degree'
import type { RouteChange, SingleChange } from '../findings'
import { courseCode, termCode, type TermCode } from '../ids'
import { applyChange, coursesTouched } from './change'
import { rebase } from './rebase'

const planned = (course: string, term: string, more: Partial<PlannedCourse> = {}): PlannedCourse => ({
  course: courseCode(course),
  term: termCode(term),
  credits: 3,
  note: null,
  locked: false,
  ...more
})
const move = (course: string, from: string, to: string): SingleChange => ({
  kind: 'move',
  course: courseCode(course),
  from: termCode(from),
  to: termCode(to)
})
const add = (course: string, term: string): SingleChange => ({ kind: 'add', planned: planned(course, term) })
const remove = (course: string, term: string): SingleChange => ({
  kind: 'remove',
  planned: planned(course, term)
})
const always = () => true

describe('a change that was proposed', () => {
  const before = [planned('HERI 210', 'SP28')]

  it('is made as it was, of a plan in which nothing of it has changed', () => {
    const now = [...before, planned('MATH 231', 'AU27')]
    expect(rebase(move('HERI 210', 'SP28', 'AU28'), before, now, always)).toEqual({
      is: 'applies',
      change: move('HERI 210', 'SP28', 'AU28'),
      follows: []
    })
  })

  it('takes a course from where the student has put it since', () => {
    const now = [planned('HERI 210', 'SU28')]
    const follows = ['HERI 210']
    expect(rebase(move('HERI 210', 'SP28', 'AU28'), before, now, always)).toEqual({
      is: 'applies',
      change: move('HERI 210', 'SU28', 'AU28'),
      follows
    })
    expect(rebase(remove('HERI 210', 'SP28'), before, now, always)).toMatchObject({
      change: remove('HERI 210', 'SU28'),
      follows
    })
    expect(rebase(add('HERI 210', 'SP28'), [], now, always)).toMatchObject({
      change: move('HERI 210', 'SU28', 'SP28'),
      follows
    })
  })

  it('is done where the plan is so already', () => {
    expect(rebase(move('HERI 210', 'SP28', 'AU28'), before, [planned('HERI 210', 'AU28')], always).is).toBe(
      'done'
    )
    expect(rebase(remove('HERI 210', 'SP28'), before, [], always).is).toBe('done')
    expect(rebase(add('HERI 210', 'SP28'), [], before, always).is).toBe('done')
  })

  it('is gone with the course it would move, and names a term that takes nothing more', () => {
    expect(rebase(move('HERI 210', 'SP28', 'AU28'), before, [], always)).toEqual({
      is: 'gone',
      course: 'HERI 210',
      why: 'notPlanned'
    })
    expect(rebase(add('HERI 210', 'SP28'), [], [], (term) => term !== 'SP28')).toEqual({
      is: 'gone',
      course: 'HERI 210',
      why: 'termClosed'
    })
  })

  it('leaves out the parts that are so already', () => {
    const change: RouteChange = {
      kind: 'several',
      changes: [remove('GEOG 240', 'AU28'), add('STAT 330', 'AU28')]
    }
    const seen = [planned('GEOG 240', 'AU28')]
    expect(rebase(change, seen, [], always)).toEqual({
      is: 'applies',
      change: add('STAT 330', 'AU28'),
      follows: []
    })
  })

  it('is gone as a whole with one of its parts', () => {
    const change: RouteChange = {
      kind: 'several',
      changes: [move('HERI 210', 'SP28', 'AU28'), add('STAT 330', 'SP28')]
    }
    expect(rebase(change, before, [], always)).toMatchObject({ is: 'gone', course: 'HERI 210' })
  })

  it('changes of a course only what it is about', () => {
    const lock: SingleChange = {
      kind: 'edit',
      course: courseCode('HERI 210'),
      term: termCode('SP28'),
      from: { credits: 3, note: null, locked: false },
      to: { credits: 3, note: null, locked: true }
    }
    const now = [planned('HERI 210', 'AU28', { note: 'with Ada' })]
    expect(rebase(lock, before, now, always)).toMatchObject({
      change: { term: 'AU28', from: { note: 'with Ada' }, to: { note: 'with Ada', locked: true } },
      follows: ['HERI 210']
    })
  })

  it('of two places of a course that may be taken again, moves the one it was about', () => {
    const twice = [planned('MUSI 102', 'AU27'), planned('MUSI 102', 'SP28')]
    expect(rebase(move('MUSI 102', 'SP28', 'AU28'), twice, twice, always)).toMatchObject({
      change: move('MUSI 102', 'SP28', 'AU28')
    })
    const now = [planned('MUSI 102', 'AU27'), planned('MUSI 102', 'SU28')]
    expect(rebase(move('MUSI 102', 'SP28', 'AU28'), twice, now, always)).toMatchObject({
      change: move('MUSI 102', 'SU28', 'AU28')
    })
  })
})

/** A small generator of numbers, the same for the same seed. */
function numbers(seed: number): (below: number) => number {
  let state = seed
  return (below) => {
    state = (state * 1103515245 + 12345) % 2147483648
    return Math.floor((state / 2147483648) * below)
  }
}

const TERMS = ['AU27', 'SP28', 'AU28', 'SP29']
const COURSES = ['HERI 210', 'STAT 330', 'GEOG 240', 'MUSI 102']

describe('whatever is proposed and whatever is changed meanwhile', () => {
  const any = (random: (below: number) => number, courses: readonly PlannedCourse[]): SingleChange => {
    const there = courses[random(courses.length)]
    const term = TERMS[random(TERMS.length)]!
    const kind = random(3)
    if (!there || kind === 0) return add(COURSES[random(COURSES.length)]!, term)
    return kind === 1 ? { kind: 'remove', planned: there } : move(there.course, there.term, term)
  }
  const tried = (courses: readonly PlannedCourse[], change: SingleChange): readonly PlannedCourse[] => {
    const made = applyChange(courses, change, always)
    return made.ok ? made.courses : courses
  }

  it('what is to be made can be made, and is done once it is; untouched, it is what was proposed', () => {
    const seen = { applies: 0, done: 0, gone: 0 }
    for (let seed = 1; seed <= 3000; seed++) {
      const random = numbers(seed)
      let plan: readonly PlannedCourse[] = COURSES.filter(() => random(2)).map((course) =>
        planned(course, TERMS[random(4)]!)
      )
      const change: RouteChange = { kind: 'several', changes: [any(random, plan)] }
      const proposed = applyChange(plan, change, always)
      if (!proposed.ok) continue
      const touched = new Set<string>(coursesTouched(change))
      const before = plan.filter((one) => touched.has(one.course))
      const isUntouched = random(3) === 0
      if (!isUntouched) for (let n = random(4); n > 0; n--) plan = tried(plan, any(random, plan))
      const found = rebase(change, before, plan, always)
      seen[found.is]++
      if (isUntouched) {
        expect(found.is).toBe('applies')
        const same = found.is === 'applies' && applyChange(plan, found.change, always)
        expect(same && same.ok && sorted(same.courses)).toEqual(sorted(proposed.courses))
      }
      if (found.is !== 'applies') continue
      const made = applyChange(plan, found.change, always)
      expect(made.ok).toBe(true)
      // Of a course that was taken on twice meanwhile, the other place could be meant next.
      const isTwice = plan.filter((one) => touched.has(one.course)).length > 1
      if (made.ok && !isTwice) expect(rebase(change, before, made.courses, always).is).toBe('done')
      // Nothing else of the plan is touched.
      const others = (courses: readonly PlannedCourse[]) => courses.filter((one) => !touched.has(one.course))
      if (made.ok) expect(others(made.courses)).toEqual(others(plan))
    }
    expect(Math.min(seen.applies, seen.done, seen.gone)).toBeGreaterThan(50)
  })
})

const sorted = (courses: readonly PlannedCourse[]): string[] =>
  courses.map(({ course, term }: { course: string; term: TermCode }) => `${course}@${term}`).sort()
