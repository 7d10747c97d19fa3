import { describe, expect, it } from 'vitest'
import { studentId } from '#core/ids'
import { placeWanted } from './places'

const imke = { role: 'student', student: studentId(1) } as const
const orla = { role: 'programAdvisor', student: null } as const

describe('where somebody goes who has come in', () => {
  it('is where they wanted to, with all that the address says', () => {
    expect(placeWanted('/students/1/week?term=AU27#mon', imke)).toBe('/students/1/week?term=AU27#mon')
    expect(placeWanted('/desk?order=name', orla)).toBe('/desk?order=name')
  })
  it.each([
    ['/desk'],
    ['/students/2/degree'],
    ['//elsewhere.example'],
    ['https://elsewhere.example'],
    [undefined],
    [['/desk']]
  ])('is a student’s own first place in place of %o', (next) =>
    expect(placeWanted(next, imke)).toBe('/students/1/today')
  )
})
