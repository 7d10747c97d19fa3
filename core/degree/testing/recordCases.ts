/** Random small records and programs, every rule of a program among them, as data and in words. */
import { Catalog, type Course } from '../../catalog'
import { courseCode, termCode, type SectionCode } from '../../ids'
import { course } from '../../testing/build'
import { dice } from '../best/testing/cases'
import type { ConditionSpec } from '../conditions'
import type { AreaSpec, LimitSpec, NeedSpec, ProgramSpec } from '../program'
import type { HeldSeat, PlannedCourse, RecordEntry } from '../attempt'

export interface RecordCase {
  catalog: Catalog
  specs: ProgramSpec[]
  record: RecordEntry[]
  held: HeldSeat[]
  planned: PlannedCourse[]
}

const CODES = ['AAA 101', 'AAA 102', 'AAA 201', 'AAA 301', 'BBB 101', 'BBB 102', 'BBB 301'] as const
/** Sets as they are written. */
const SETS = [
  'AAA *',
  'BBB *',
  'AAA 101-199',
  'level 300+',
  'AAA 101 or BBB 101',
  'AAA 102, 201 or BBB 102',
  'AAA 301 or BBB 301',
  'AAA 101',
  'BBB 102',
  'any'
] as const

export function recordCase(seed: number): RecordCase {
  const roll = dice(seed)
  const below = (n: number) => Math.floor(roll() * n)
  const chance = (p: number) => roll() < p
  const pick = <T>(list: readonly T[]): T => list[below(list.length)]!

  const codes = CODES.filter(() => chance(0.9))
  const over = new Map<string, Partial<Course>>(codes.map((code) => [code, {}]))
  const pair = () => {
    const one = pick(codes)
    const other = pick(codes)
    return one === other ? undefined : ([one, other] as const)
  }
  const exclusive = chance(0.25) ? pair() : undefined
  if (exclusive) over.set(exclusive[0], { exclusive: [courseCode(exclusive[1])] })
  const alike = chance(0.15) ? pair() : undefined
  if (alike && alike.join() !== exclusive?.join() && alike.toReversed().join() !== exclusive?.join()) {
    over.set(alike[0], { ...over.get(alike[0]), equivalents: [courseCode(alike[1])] })
    over.set(alike[1], { ...over.get(alike[1]), equivalents: [courseCode(alike[0])] })
  }
  const catalog = new Catalog(
    codes.map((code) => {
      const kind = below(12)
      return course(code, {
        credits: pick([3, 3, 3, 4, 1.5]),
        ...over.get(code),
        ...(kind === 0 && { prerequisite: 'test MATH >= 90' }),
        ...(kind === 1 && { prerequisite: pick(codes) === code ? '' : pick(codes.filter((c) => c !== code)) })
      })
    })
  )
  const record: RecordEntry[] = []
  const held: HeldSeat[] = []
  const planned: PlannedCourse[] = []
  const creditsOf = (code: string) => catalog.course(code).credits
  const ahead = (code: string) => {
    const [own, credits] = [courseCode(code), creditsOf(code)]
    const kind = below(4)
    if (kind === 0) record.push({ course: own, term: termCode('SP27'), credits, grade: null, origin: 'here' })
    else if (kind === 1)
      held.push({
        course: own,
        term: termCode('AU27'),
        section: 'S' as SectionCode,
        credits,
        placedByOffice: false
      })
    else planned.push({ course: own, term: termCode('SP28'), credits, note: null, locked: false })
  }
  let room = 5
  for (const code of codes) {
    if (room <= 0 || chance(0.35)) continue
    room--
    if (chance(0.6)) {
      const grade = pick(['B', 'B', 'D', 'F'])
      record.push({
        course: courseCode(code),
        term: termCode('AU26'),
        credits: creditsOf(code),
        grade,
        origin: chance(0.2) ? 'transfer' : 'here'
      })
      if (room > 0 && chance(grade === 'B' ? 0.05 : 0.5)) {
        room--
        ahead(code)
      }
    } else ahead(code)
  }

  /** So many credits, or so many courses. */
  const most = (credits: readonly number[]) =>
    chance(0.5) ? { courses: below(3) } : { credits: pick(credits) }
  let needs = 0
  const need = (credits?: number): NeedSpec => {
    const from = pick(SETS)
    const id = `n${needs++}`
    const byCourse = credits === undefined ? chance(0.6) : false
    const amount = byCourse ? 1 + below(2) : (credits ?? pick([3, 4, 6]))
    return {
      id,
      title: id,
      measure: byCourse ? 'courses' : 'credits',
      amount,
      credits: byCourse ? amount * 3 : amount,
      from,
      ...(chance(0.25) && { leastGrade: 'C' }),
      ...(amount > 1 && chance(0.12) && { subjects: 2 }),
      ...(chance(0.15) && { including: [{ from: pick(SETS), amount: byCourse ? 1 : 3 }] }),
      ...(chance(0.15) && { atMost: [{ from: pick(SETS), ...most([0, 3, 4]) }] }),
      ...(chance(0.1) && { perSubject: 1 })
    }
  }
  const areasOf = (name: string, free: boolean): AreaSpec[] => {
    const own = Array.from({ length: 1 + below(2) }, () => need())
    const areas: AreaSpec[] = [{ id: name, title: name, needs: own }]
    if (free && chance(0.3)) {
      const branch = (id: string) => ({ id, title: id, needs: [need(3)] })
      areas[0]!.needs.push({
        id: `${name}c`,
        title: 'choice',
        choose: 1,
        of: [branch(`${name}b1`), branch(`${name}b2`)]
      })
    }
    if (free && chance(0.3))
      areas.push({
        id: `${name}s`,
        title: 'shares',
        needs: [need()],
        shares: { with: [name], credits: pick([0, 3, 6]) }
      })
    if (free && chance(0.25)) {
      const credits = pick([3, 4])
      areas.push({ id: `${name}f`, title: 'free', free: true, needs: [{ ...need(credits), from: 'any' }] })
      const [only] = areas.at(-1)!.needs as NeedSpec[]
      areas.at(-1)!.needs = [
        { id: only!.id, title: 'free', measure: 'credits', amount: credits, credits, from: 'any' }
      ]
    }
    return areas
  }
  const creditsIn = (list: AreaSpec['needs']): number =>
    list.reduce((sum, one) => sum + ('choose' in one ? creditsIn(one.of[0]!.needs) : one.credits), 0)
  const specOf = (code: string, kind: 'degree' | 'minor'): ProgramSpec => {
    const areas = areasOf(code.toLowerCase(), kind === 'degree')
    const limits: LimitSpec[] = chance(0.15) ? [{ title: 'limit', from: pick(SETS), ...most([3, 4, 6]) }] : []
    const conditions: ConditionSpec[] = Array.from({ length: chance(0.4) ? 1 + below(2) : 0 }, (_, i) => ({
      id: `${code}u${i}`,
      title: 'condition',
      asks: 'credits',
      least: pick([3, 4, 6]),
      from: pick(SETS),
      counting: true,
      ...(chance(0.2) && { here: true })
    }))
    return {
      code,
      title: code,
      shortTitle: code,
      kind,
      catalogYear: '2026-27',
      credits: areas.reduce((sum, area) => sum + (area.shares ? 0 : creditsIn(area.needs)), 0),
      areas,
      limits,
      conditions
    }
  }
  const specs = [specOf('DEG', 'degree')]
  if (chance(0.3))
    specs.push({ ...specOf('MIN', 'minor'), ...(chance(0.8) && { mayShare: pick([0, 3, 4]) }) })
  return { catalog, specs, record, held, planned }
}
