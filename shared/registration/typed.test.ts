import { describe, expect, it } from 'vitest'
import type { SectionCode } from '#core/ids'
import type { Section } from '#core/week'
import { sectionCodeAt } from '#core/formats'
import { meeting, section } from '../../core/testing/build'
import { readTyped } from './typed'

let issued = 100
function code(): SectionCode {
  for (;;) {
    const found = sectionCodeAt(issued++)
    if (found) return found
  }
}
const of = (course: string, number: string, over: Partial<Section> = {}) =>
  section(course, [], { code: code(), number, ...over })
const writ = of('WRIT 215', '01')
const soil = of('SOIL 220', '01', { credits: 4 })
const labA = of('SOIL 220', '01A', { kind: 'lab', parent: soil.code, credits: 0 })
const labB = of('SOIL 220', '01B', { kind: 'lab', parent: soil.code, credits: 0 })
const other = of('SOIL 220', '02', { credits: 4 })
const [dotted, lettered] = [of('MATH 10.101', '02'), of('ENGL F21A', '01')]
const gone = of('ENVI 310', '01', { cancelled: true })
const placed = of('HERI 210', '01', { officeOnly: true })
const summer = of('FELD 390', '01')
const autumn = {
  name: 'Autumn 2027',
  sections: [writ, soil, labA, labB, other, gone, placed, dotted, lettered]
}
const read = (text: string) => readTyped(text, autumn, [{ name: 'Summer 2027', sections: [summer] }])
const keys = (text: string) => read(text).options.map((option) => option.key)
const whys = (text: string) => read(text).faults.map((fault) => fault.why)

describe('typed sections', () => {
  it('are codes or numbers, in any case, parted by anything', () => {
    expect(keys(`${writ.code}, ${other.code}`)).toEqual([writ.code, other.code])
    expect(keys(`${writ.code.toLowerCase()}\n${other.code}`)).toEqual([writ.code, other.code])
    expect(keys('WRIT 215-01')).toEqual([writ.code])
    expect(keys('writ215-1')).toEqual([writ.code])
  })
  it('may be of courses whose numbers have a second part or a letter', () => {
    expect(keys('math 10.101-02, ENGL f21a-1')).toEqual([dotted.code, lettered.code])
    expect(keys('MATH10.101-2')).toEqual([dotted.code])
  })
  it('imply the lecture of a lab, and take both where both are typed', () => {
    const whole = `${soil.code}+${labB.code}`
    expect(keys(labB.code)).toEqual([whole])
    expect(keys(`${soil.code} ${labB.code}`)).toEqual([whole])
    expect(keys('SOIL 220-01B')).toEqual([whole])
  })
  it('ask for the lab that is missing, by its codes', () => {
    expect(whys(soil.code)).toEqual([`SOIL 220-01 needs a lab as well: type ${labA.code} or ${labB.code}.`])
  })
  it('are one choice of a course', () => {
    expect(whys(`${labA.code} ${other.code}`)).toEqual([
      'These are several choices of SOIL 220; a course is taken once. Leave one of them.'
    ])
    expect(whys(`${labA.code} ${labB.code}`)).toEqual(['These sections of SOIL 220 do not go together.'])
  })
  it('of a slip are told apart from what is not there', () => {
    const wrong = writ.code.slice(0, 4) + (writ.code[4] === 'X' ? 'Y' : 'X')
    expect(whys(wrong)).toEqual([`${wrong} is mistyped: its last character does not fit the others.`])
    expect(whys('AB0CD')[0]).toContain('0, O, 1 and I are left out')
    expect(whys('AB')[0]).toContain('neither a section code')
    const free = code()
    expect(whys(free)).toEqual([`${free} is no section of Autumn 2027.`])
    expect(whys('WRIT 215-09')).toEqual(['Autumn 2027 has no section WRIT 215-09.'])
  })
  it('of another term are said to be of that', () => {
    expect(whys(summer.code)).toEqual([
      `${summer.code} is a section of Summer 2027; this sheet is of Autumn 2027.`
    ])
  })
  it('that nobody registers alone, or that are cancelled, say so; the others go on', () => {
    const { options, faults } = read(`${placed.code} ${gone.code} ${writ.code}`)
    expect(faults.map((fault) => fault.why)).toEqual([
      'Only an office places students in HERI 210-01.',
      'ENVI 310-01 was cancelled.'
    ])
    expect(options.map((option) => option.course)).toEqual(['WRIT 215'])
  })
  it('take no harm from being typed twice, or not at all', () => {
    expect(keys(`${writ.code} ${writ.code} WRIT 215-01`)).toEqual([writ.code])
    expect(read('  ')).toEqual({ options: [], faults: [] })
  })
  it('are read where their labs do not clash with them', () => {
    const main = of('ENDA 310', '01', { meetings: [meeting('M', '9:00', '10:00')] })
    const lab = of('ENDA 310', '01A', {
      kind: 'lab',
      parent: main.code,
      meetings: [meeting('M', '9:30', '11:00')]
    })
    const good = of('ENDA 310', '01B', {
      kind: 'lab',
      parent: main.code,
      meetings: [meeting('T', '9:30', '11:00')]
    })
    const term = { name: 'Autumn 2027', sections: [main, lab, good] }
    expect(readTyped(main.code, term).options.map((option) => option.key)).toEqual([
      `${main.code}+${good.code}`
    ])
  })
})
