import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Catalog } from '../catalog'
import { course, entry, program, term } from '../testing/build'
import { auditAll, type Audit } from './audit'
import { explain } from './explain'
import { attemptsOf } from './attemptList'

const numbers = [101, 102, 201, 202, 301, 302]
const catalog = new Catalog(['ENVI', 'STAT'].flatMap((s) => numbers.map((n) => course(`${s} ${n}`))))
const read = (courses: readonly string[], needs: { from: string; amount?: number }[]) => {
  const attempts = attemptsOf(
    { catalog, record: courses.map((code) => entry(code)), held: [], planned: [] },
    [term('AU26')]
  )
  const audits = auditAll([program(...needs)], attempts, catalog)
  return { attempts, audits, about: (key: string) => explain(key, audits, attempts, catalog) }
}

describe('why a course counts where it does', () => {
  it('tells what moving it would open', () => {
    const { about } = read(['ENVI 101', 'STAT 101'], [{ from: 'ENVI 101' }, { from: 'ENVI 101 or STAT 101' }])
    const found = about('ENVI 101@AU26')
    expect(found.here.map((h) => h.result.need.id)).toEqual(['n0'])
    expect(found.elsewhere).toMatchObject([
      { need: { id: 'n1' }, opens: [{ id: 'n0' }], leaves: [{ course: 'STAT 101' }], counts: true }
    ])
  })
  it('tells that nothing is lost where another course takes its place', () => {
    const { about } = read(['ENVI 101', 'ENVI 102'], [{ from: 'ENVI *' }, { from: 'ENVI *' }])
    expect(about('ENVI 101@AU26').elsewhere).toMatchObject([
      { opens: [], closes: [], leaves: [], counts: true }
    ])
  })
  it('tells the same of a reading that was made again', () => {
    const needs = [{ from: 'ENVI 101' }, { from: 'ENVI 101 or STAT 101' }]
    const before = read(['ENVI 101', 'STAT 101'], needs)
    const now = read(['ENVI 101', 'STAT 101'], needs)
    const found = explain('ENVI 101@AU26', before.audits, now.attempts, catalog)
    expect(found.here.map((h) => h.result.need.id)).toEqual(['n0'])
    expect(found.elsewhere).toMatchObject([
      { need: { id: 'n1' }, opens: [{ id: 'n0' }], leaves: [{ course: 'STAT 101' }], joins: [] }
    ])
  })
  it('knows no course that is not there', () => {
    expect(() => read([], [{ from: 'any' }]).about('ENVI 101@AU26')).toThrow('ENVI 101@AU26')
  })

  const code = fc.constantFrom(...catalog.courses.map((c) => c.code))
  const need = fc.record({
    from: fc.uniqueArray(code, { minLength: 2, maxLength: 6 }).map((list) => list.join(' or ')),
    amount: fc.integer({ min: 1, max: 3 })
  })
  const open = (audits: readonly Audit[]) =>
    audits.flatMap((audit) => audit.areas.filter((area) => area.state === 'needed'))
  it('never promises a better reading than the present one (200 cases, seed 20270415)', () => {
    let lost = 0
    fc.assert(
      fc.property(
        fc.array(need, { minLength: 2, maxLength: 5 }),
        fc.uniqueArray(code, { minLength: 2, maxLength: 7 }),
        (needs, courses) => {
          const { audits, attempts, about } = read(courses, needs)
          for (const { key } of attempts.counted) {
            for (const { need: other, opens, closes, beyond, program: of } of about(key).elsewhere) {
              // It may close more only where something could never be closed then.
              if (closes.length > opens.length) expect(beyond.length).toBeGreaterThan(0)
              const pin = { attempt: key, program: of.spec.code, need: other.id }
              const pinned = auditAll([of], attempts, catalog, { pin })
              expect(open(pinned).length - open(audits).length).toBe(opens.length - closes.length)
              if (opens.length > closes.length) lost++
            }
          }
        }
      ),
      { seed: 20270415, numRuns: 200 }
    )
    expect(lost).toBeGreaterThan(50)
  })
})
