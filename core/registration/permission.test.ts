import { describe, expect, it } from 'vitest'
import { Catalog } from '../catalog'
import { course, meeting, section, term } from '../testing/build'
import { factsIn } from '../testing/facts'
import { optionsAmong, type Permissions } from '../week'
import { decide } from './decide'
import type { RegistrationFacts } from './facts'
import { permissionFor } from './permission'

const catalog = new Catalog([course('STAT 212', { prerequisite: 'STAT 110' }), course('SOIL 220')])
const terms = [term('AU27')]
const hours = [meeting('MW', '9:30', '10:45')]
const asked = section('STAT 212', hours, { permissionNeeded: true, capacity: 3, taken: 3 })
const other = section('SOIL 220', hours, { credits: 17 })
const option = optionsAmong([asked])[0]!
const decided = (over: Partial<RegistrationFacts>) =>
  decide(factsIn({ catalog, terms, term: terms[0]! }, { heldSections: [other], ...over }), [option])[0]!

describe('the permission that is asked for from a refusal', () => {
  it('sets that refusal aside, and with one for each nothing is left', () => {
    const { refusals } = decided({})
    expect(refusals.map((one) => one.code).sort()).toEqual([
      'clash',
      'full',
      'load',
      'permission',
      'prerequisite'
    ])
    const all = refusals.map((one) => permissionFor(one, option)!)
    for (const [i, { kind, section: code }] of all.entries()) {
      const permissions: Permissions = new Map([[code, new Set([kind])]])
      const left = decided({ permissions }).refusals.map((one) => one.code)
      expect(left).not.toContain(refusals[i]!.code)
      expect(left).toHaveLength(refusals.length - 1)
    }
    const every: Permissions = new Map([[asked.code, new Set(all.map(({ kind }) => kind))]])
    expect(decided({ permissions: every }).refusals).toEqual([])
  })
  it('sets aside a clash of a component', () => {
    const lecture = section('SOIL 220', [meeting('F', '9:30', '10:45')])
    const lab = section('SOIL 220', hours, { kind: 'lab', parent: lecture.code, credits: 0 })
    const [whole] = optionsAmong([lecture, lab])
    const other = section('STAT 212', hours)
    const decided = (over: Partial<RegistrationFacts>) =>
      decide(factsIn({ catalog, terms, term: terms[0]! }, { heldSections: [other], ...over }), [whole!])[0]!
    const [refusal] = decided({}).refusals
    expect(refusal).toMatchObject({ code: 'clash', with: 'STAT 212' })
    const { kind, section: code } = permissionFor(refusal!, whole!)!
    expect(decided({ permissions: new Map([[code, new Set([kind])]]) }).refusals).toEqual([])
  })
  it('is none for what is not of the section', () => {
    expect(permissionFor({ code: 'signOff', ended: null, changed: false }, option)).toBeUndefined()
    expect(permissionFor({ code: 'alreadyRegistered' }, option)).toBeUndefined()
  })
})
