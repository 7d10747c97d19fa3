/**
 * Random small degrees, filled, and judged by trying everything: the judge reads rules, seasons, loads and weeks by
 * itself and shares no code with what it judges.
 */
import loadHighs from 'highs'
import { beforeAll, describe, expect, it } from 'vitest'
import { Catalog, type Course } from '#core/catalog'
import { auditRecord, compileProgram, type PlannedCourse, type ProgramSpec } from '#core/degree'
import { fillQuestion, type Solve } from '#core/fill'
import { checkRoute, Offered, routeFinish, type RouteContext } from '#core/route'
import type { Section } from '#core/week'
import { dice } from '../../core/degree/best/testing/cases'
import { course, entry, meeting, section, term } from '../../core/testing/build'
import { LONG } from '../../tests/long'
import { filledOf, type Reread } from './filling'
import { solverOf } from './solver'

const CODES = ['AAA 101', 'AAA 102', 'AAA 201', 'BBB 101', 'BBB 201', 'BBB 202', 'CCC 101'] as const
const TERMS = [term('AU27', { published: true }), term('SP28'), term('AU28')]
const HOURS = [
  ['MW', '9:00', '10:15'],
  ['MW', '10:30', '11:45'],
  ['TR', '9:00', '10:15']
] as const

const hoursOf = (slot: number) => {
  const [days, from, to] = HOURS[slot]!
  return meeting(days, from, to)
}

interface Case {
  courses: Course[]
  /** Courses that each need one of theirs before them. */
  before: Map<string, string[]>
  earned: string[]
  needs: { from: string[]; amount: number }[]
  load: number
  /** Of the first term: the hours of each section, by course. */
  slots: Map<string, number[]>
}

function caseOf(seed: number): Case {
  const roll = dice(seed)
  const below = (n: number) => Math.floor(roll() * n)
  const some = (n: number) => CODES.filter(() => below(CODES.length) < n)
  const before = new Map<string, string[]>()
  CODES.forEach((code, i) => {
    if (i > 0 && below(10) < 4)
      before.set(code, [...new Set([CODES[below(i)]!, ...(below(3) ? [] : [CODES[below(i)]!])])])
  })
  const seasons = [['autumn', 'spring'], ['autumn', 'spring'], ['autumn'], ['spring']] as const
  const courses = CODES.map((code) =>
    course(code, {
      prerequisite: (before.get(code) ?? []).join(' or '),
      offered: { seasons: [...seasons[below(4)]!], years: 'every' }
    })
  )
  const needs = Array.from({ length: 2 + below(2) }, () => {
    const from = some(3)
    return { from: from.length ? from : [CODES[below(CODES.length)]!], amount: 1 + below(2) }
  })
  const slots = new Map<string, number[]>()
  for (const one of courses)
    if (one.offered.seasons.includes('autumn') && below(6))
      slots.set(
        one.code,
        Array.from({ length: 1 + below(2) }, () => below(HOURS.length))
      )
  const earned = below(2) ? [CODES[below(CODES.length)]!] : []
  return { courses, before, earned, needs, load: 3 + 3 * below(3), slots }
}

/** The first term by which every need is met, by trying every set of courses in every term; undefined without any. */
function judged({ courses, before, earned, needs, load, slots }: Case): number | undefined {
  /** Whether each need gets its own courses, by trying every way to share them out. */
  const isMet = (taken: readonly string[]): boolean => {
    const left = needs.map((need) => need.amount)
    const share = (i: number): boolean => {
      if (left.every((one) => one === 0)) return true
      if (i === taken.length) return false
      if (share(i + 1)) return true
      return needs.some(({ from }, n) => {
        if (left[n] === 0 || !from.includes(taken[i]!)) return false
        left[n]!--
        const ends = share(i + 1)
        left[n]!++
        return ends
      })
    }
    return share(0)
  }
  const runs = (code: string, t: number) =>
    t === 0
      ? slots.has(code)
      : courses.find((one) => one.code === code)!.offered.seasons.includes(TERMS[t]!.season)
  if (isMet(earned)) return -1
  const seen = new Set<string>()
  let states = [earned]
  for (let t = 0; t < TERMS.length; t++) {
    const next: string[][] = []
    for (const there of states) {
      const may = CODES.filter(
        (code) =>
          !there.includes(code) &&
          runs(code, t) &&
          (!before.has(code) || before.get(code)!.some((one) => there.includes(one)))
      )
      for (let bits = 0; bits < 2 ** may.length; bits++) {
        const set = may.filter((_, i) => bits & (1 << i))
        if (set.length * 3 > load || (t === 0 && !hasWeek(set.map((code) => slots.get(code)!)))) continue
        const all = [...there, ...set].sort()
        if (isMet(all)) return t
        if (!seen.has(`${t} ${all.join()}`)) next.push(all)
        seen.add(`${t} ${all.join()}`)
      }
    }
    states = next
  }
  return undefined
}

/** Every set of needs that cannot be met together. */
function conflictsOf(one: Case): Case['needs'][] {
  return Array.from({ length: 2 ** one.needs.length - 1 }, (_, bits) =>
    one.needs.filter((_, n) => (bits + 1) & (1 << n))
  ).filter((needs) => judged({ ...one, needs }) === undefined)
}

/** Whether one of each list can be had so that no two are alike. */
function hasWeek(lists: readonly (readonly number[])[]): boolean {
  const go = (i: number, used: readonly number[]): boolean =>
    i === lists.length || lists[i]!.some((slot) => !used.includes(slot) && go(i + 1, [...used, slot]))
  return go(0, [])
}

function worldOf({ courses, earned, needs, load, slots }: Case) {
  const catalog = new Catalog(courses)
  const spec: ProgramSpec = {
    code: 'TEST',
    title: 'Test',
    shortTitle: 'Test',
    kind: 'degree',
    catalogYear: '2025-26',
    credits: 3 * needs.reduce((sum, need) => sum + need.amount, 0),
    areas: needs.map(({ from, amount }, n) => ({
      id: `a${n}`,
      title: `Area ${n}`,
      needs: [
        {
          id: `n${n}`,
          title: `Need ${n}`,
          measure: 'courses',
          amount,
          credits: 3 * amount,
          from: from.join(' or ')
        }
      ]
    }))
  }
  const programs = [compileProgram(spec)]
  const sections: Section[] = [...slots].flatMap(([code, hours]) =>
    hours.map((slot) => section(code, [hoursOf(slot)]))
  )
  const offered = new Offered(new Map([['AU27', { sections, holidays: new Set<number>() }]]), {
    programs: ['TEST'],
    standing: 'freshman',
    permissions: new Map(),
    kept: [],
    held: new Set()
  })
  const record = earned.map((code) => entry(code))
  const reread = (planned: readonly PlannedCourse[]) => {
    const { attempts, audits } = auditRecord(programs, { catalog, record, held: [], planned }, TERMS)
    const context: RouteContext = {
      catalog,
      terms: TERMS,
      plannable: new Set(TERMS.map((one) => one.code)),
      student: { standing: 'freshman', programs: ['TEST'], tests: {}, graded: [] },
      attempts,
      planned,
      running: new Map([['AU27', new Set<string>(slots.keys())]]),
      offered,
      loadMost: () => load,
      audits
    }
    return { audits, context }
  }
  return { reread: reread satisfies Reread, slots }
}

let solve: Solve
beforeAll(async () => {
  solve = solverOf(await loadHighs())
})
const filled = (reread: Reread, placed: readonly PlannedCourse[]) => {
  const question = fillQuestion(reread(placed).context, {
    summers: false,
    subjects: new Set(),
    level: 'undergraduate'
  })
  return filledOf(question, placed, reread, { solve })
}

const CASES = LONG ? 3000 : 20
describe(`random degrees (${CASES}, from seed 1)`, () => {
  it(
    'finish as early as can be, as the audit says, with a week in the published term',
    { timeout: 900_000 },
    () => {
      const seen = { filled: 0, late: 0, impossible: 0, smallest: 0, weekless: 0 }
      for (let seed = 1; seed <= CASES; seed++) {
        const one = caseOf(seed)
        const { reread, slots } = worldOf(one)
        const { answer, proposal } = filled(reread, [])
        const best = judged(one)
        const planned = (proposal?.courses ?? []).map((p) => p.planned)
        const { audits, context } = reread(planned)
        const finish = proposal?.finish
        if (best === undefined) {
          expect({ seed, finish: finish?.code }).toEqual({ seed, finish: undefined })
          expect({ seed, left: proposal!.left.length }).not.toEqual({ seed, left: 0 })
          seen.impossible++
          if (answer.kind === 'partly' && answer.smallest) {
            const sizes = conflictsOf(one).map((needs) => needs.length)
            expect({ seed, conflict: answer.conflict.length }).toEqual({ seed, conflict: Math.min(...sizes) })
            const named = proposal!.conflict.map((title) => one.needs[Number(title.split(' ')[1])]!)
            expect({ seed, judged: judged({ ...one, needs: named }) }).toEqual({ seed, judged: undefined })
            seen.smallest++
          }
        } else if (best >= 0) {
          expect({ seed, finish: finish?.code, proved: proposal!.proved }).toEqual({
            seed,
            finish: TERMS[best]!.code,
            proved: true
          })
          expect(routeFinish(audits, TERMS)?.code).toBe(finish!.code)
          seen.filled++
          if (best > 0) seen.late++
        }
        // Whatever is proposed holds: in the checks of the route, in its loads, and in a week of the published term.
        expect({ seed, findings: checkRoute(context).filter((f) => f.code !== 'outside') }).toEqual({
          seed,
          findings: []
        })
        const first = planned.filter((p) => p.term === 'AU27').map((p) => slots.get(p.course)!)
        expect({ seed, week: hasWeek(first) }).toEqual({ seed, week: true })
        for (const at of TERMS)
          expect(planned.filter((p) => p.term === at.code).length * 3).toBeLessThanOrEqual(one.load)
        if (!hasWeek([...slots.values()])) seen.weekless++
        // Filled again, nothing changes: where something stays open, nothing more can be done about it.
        if (!proposal?.left.length) continue
        const again = filled(reread, planned).proposal
        expect({ seed, again: again?.courses.map((p) => p.planned) }).toEqual({ seed, again: [] })
      }
      expect(seen.filled).toBeGreaterThan(CASES / 4)
      expect(seen.late).toBeGreaterThan(CASES / 8)
      expect(seen.impossible).toBeGreaterThan(CASES / 20)
      expect(seen.smallest).toBeGreaterThan(CASES / 25)
      expect(seen.weekless).toBeGreaterThan(CASES / 20)
    }
  )
})
