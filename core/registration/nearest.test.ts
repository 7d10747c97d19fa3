import { describe, expect, it } from 'vitest'
import { Catalog } from '../catalog'
import { course, meeting, section, term } from '../testing/build'
import { factsIn } from '../testing/facts'
import { optionsAmong } from '../week'
import type { RegistrationFacts } from './facts'
import { nearestOption } from './nearest'

const at = (days: string, from: string, to: string, over = {}) =>
  section('STAT 110', [meeting(days, from, to)], over)
const autumn = term('AU27')
const catalog = new Catalog([course('STAT 110'), course('SOIL 220')])
const facts = (over: Partial<RegistrationFacts> = {}) =>
  factsIn({ catalog, terms: [autumn], term: autumn }, over)

describe('the nearest that can be had', () => {
  const lost = at('MW', '9:30', '10:45')
  const late = at('MW', '11:00', '12:15')
  const otherDay = at('TR', '9:30', '10:45')
  const full = at('MW', '9:00', '10:15', { capacity: 5, taken: 5 })
  it('is on the same days and moves least, among what has seats and fits', () => {
    const options = optionsAmong([otherDay, full, late])
    expect(nearestOption(facts(), options, [lost])!.main).toBe(late)
    const busy = section('SOIL 220', [meeting('M', '11:30', '12:00')])
    expect(nearestOption(facts({ heldSections: [busy] }), options, [lost])!.main).toBe(otherDay)
  })
  it('is nothing where nothing can be had', () => {
    expect(nearestOption(facts(), optionsAmong([full]), [lost])).toBeUndefined()
    expect(nearestOption(facts({ now: facts().closes }), optionsAmong([late]), [lost])).toBeUndefined()
  })
  it('of a class without hours is the first that can be had', () => {
    const online = section('STAT 110', [], { mode: 'online' })
    expect(nearestOption(facts(), optionsAmong([late, otherDay]), [online])!.main).toBe(late)
  })
})
