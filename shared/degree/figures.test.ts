import { expect, it } from 'vitest'
import { unplacedText, type ProgramFigures } from './figures'

const of = (...needed: number[]) => needed.map((one) => ({ needed: one })) as ProgramFigures[]

it('tells what has no place on the route by its credits, and by requirements where they give none', () => {
  expect(unplacedText({ programs: of(9, 3), open: 4 })).toBe('12 credits')
  expect(unplacedText({ programs: of(0), open: 2 })).toBe('2 requirements')
  expect(unplacedText({ programs: of(0, 0), open: 1 })).toBe('1 requirement')
  expect(unplacedText({ programs: of(0), open: 0 })).toBe('')
})
