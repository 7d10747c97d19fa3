import { expect, it } from 'vitest'
import { LONG } from '../../tests/long'
import { Catalog } from '../catalog'
import { term } from '../testing/build'
import { auditRecord } from './audit'
import { NOTHING_BESIDE } from './conditions'
import { compileProgram } from './compile'
import { STATUS_ORDER } from './attempt'
import type { ExceptionGrant } from './exceptions'
import { areaCredits, type ProgramSpec, type RequirementSpec } from './program'
import { dice } from './best/testing/cases'
import { recordCase, type RecordCase } from './testing/recordCases'
import { compareTuples, RecordJudge } from './testing/recordJudge'

const TERMS = ['AU26', 'SP27', 'AU27', 'SP28'].map((code) => term(code))
const CASES = LONG ? 20_000 : 100

/** Part of a need, or a condition, waived in some of the cases; and the programs as they are without what is waived. */
function exceptedOf(
  { specs }: RecordCase,
  seed: number
): { exceptions: ExceptionGrant[]; specs: ProgramSpec[] } {
  const roll = dice(seed + 991)
  const exceptions: ExceptionGrant[] = []
  const waive = (program: string, need: string, amount: number | null) =>
    exceptions.push({
      ...{ id: exceptions.length + 1, kind: 'waiver', program, need, amount },
      ...{ course: null, reason: 'said so', by: 'Somebody', at: 0 }
    })
  const less = (need: RequirementSpec, program: string): RequirementSpec => {
    if ('choose' in need)
      return {
        ...need,
        of: need.of.map((way) => ({ ...way, needs: way.needs.map((one) => less(one, program)) }))
      }
    const amount = need.amount - (need.measure === 'courses' ? 1 : [1, 2, 3][Math.floor(roll() * 3)]!)
    if (amount <= 0 || roll() < 0.8) return need
    waive(program, need.id, need.amount - amount)
    return {
      ...need,
      amount,
      including: need.including?.map((part) => ({ ...part, amount: Math.min(part.amount, amount) })),
      ...(need.measure === 'courses' && need.subjects && { subjects: Math.min(need.subjects, amount) })
    }
  }
  const left = specs.map((spec) => ({
    ...spec,
    areas: spec.areas.map((area) => ({ ...area, needs: area.needs.map((one) => less(one, spec.code)) })),
    conditions: spec.conditions?.filter(({ id }) => roll() < 0.8 || !waive(spec.code, id, null))
  }))
  return { exceptions, specs: left }
}

/** In some of the cases a course has no credits, and a need in courses stands for none. */
function withoutCredits(one: RecordCase, seed: number): RecordCase {
  const roll = dice(seed + 37)
  if (roll() < 0.85) return one
  const { courses } = one.catalog
  const { code } = courses[Math.floor(roll() * courses.length)]!
  const none = <T extends { course: string; credits: number }>(list: readonly T[]): T[] =>
    list.map((entry) => (entry.course === code ? { ...entry, credits: 0 } : entry))
  const needless = (need: RequirementSpec): RequirementSpec =>
    'choose' in need || need.measure === 'credits' || roll() < 0.5 ? need : { ...need, credits: 0 }
  const specs = one.specs.map((spec) => {
    const areas = spec.areas.map((area) => ({ ...area, needs: area.needs.map(needless) }))
    const gone = (at: number) => areaCredits(spec.areas[at]!) - areaCredits(areas[at]!)
    // An area that shares stands for nothing of the program's total.
    const less = areas.reduce((sum, area, at) => sum + (area.shares ? 0 : gone(at)), 0)
    return { ...spec, areas, credits: spec.credits - less }
  })
  return {
    catalog: new Catalog(
      courses.map((own) => (own.code === code ? { ...own, credits: 0, creditsMost: 0 } : own))
    ),
    specs,
    ...{ record: none(one.record), held: none(one.held), planned: none(one.planned) }
  }
}

it(
  `the best reading of a record is that of trying every one (${CASES} small records, from seed 1)`,
  { timeout: 1_800_000 },
  () => {
    const seen = { open: 0, beyond: 0, conditions: 0, limit: 0, excepted: 0 }
    for (let seed = 1; seed <= CASES; seed++) {
      const one = withoutCredits(recordCase(seed), seed)
      const programs = one.specs.map((spec) => compileProgram(spec))
      const { exceptions, specs } = exceptedOf(one, seed)
      seen.excepted += exceptions.length
      const { audits } = auditRecord(programs, one, TERMS, { beside: NOTHING_BESIDE, exceptions })
      const judge = new RecordJudge({ ...one, specs })
      const best = judge.best()
      const needs = audits.flatMap((audit) => audit.areas.flatMap((area) => area.needs))
      const placing = judge.placingFrom(
        needs.flatMap(({ need, evidence }) =>
          evidence.map(({ course, status, grade }) => ({
            need: need.id,
            code: course,
            level: STATUS_ORDER.indexOf(status),
            graded: grade !== null
          }))
        )
      )
      const active = judge.activeFrom(new Set(needs.map(({ need }) => need.id)))
      const tuple = placing && judge.tupleOf(placing, active)
      const limit = audits.some((audit) => audit.ended === 'limit')
      if (limit) {
        // It says that it is not proved; it keeps the rules, and is no better than the best.
        seen.limit++
        expect({ seed, better: compareTuples(tuple!, best) < 0 }).toEqual({ seed, better: false })
      } else expect({ seed, tuple }).toEqual({ seed, tuple: best })
      if (best[1]! > 0) seen.open++
      if (best[0]! > 0) seen.beyond++
      if (best[6]! > 0) seen.conditions++
    }
    expect(seen.limit).toBeLessThanOrEqual(CASES / 100)
    for (const often of [seen.open, seen.beyond, seen.conditions, seen.excepted])
      expect(often).toBeGreaterThan(CASES / 20)
  }
)
