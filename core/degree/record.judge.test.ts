import { expect, it } from 'vitest'
import { LONG } from '../../tests/long'
import { term } from '../testing/build'
import { auditRecord } from './audit'
import { NOTHING_BESIDE } from './conditions'
import { compileProgram } from './compile'
import { STATUS_ORDER } from './attempt'
import { recordCase } from './testing/recordCases'
import { compareTuples, RecordJudge } from './testing/recordJudge'

const TERMS = ['AU26', 'SP27', 'AU27', 'SP28'].map((code) => term(code))
const CASES = LONG ? 20_000 : 100

it(
  `the best reading of a record is that of trying every one (${CASES} small records, from seed 1)`,
  { timeout: 1_800_000 },
  () => {
    const seen = { open: 0, beyond: 0, conditions: 0, limit: 0 }
    for (let seed = 1; seed <= CASES; seed++) {
      const one = recordCase(seed)
      const programs = one.specs.map((spec) => compileProgram(spec))
      const { audits } = auditRecord(programs, one, TERMS, { beside: NOTHING_BESIDE })
      const judge = new RecordJudge(one)
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
    for (const often of [seen.open, seen.beyond, seen.conditions]) expect(often).toBeGreaterThan(CASES / 20)
  }
)
