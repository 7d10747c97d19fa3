import { describe, expect, it } from 'vitest'
import { courseCode, termCode } from '#core/ids'
import { section } from '../../core/testing/build'
import { termWeek } from './termWeek'

const lecture = section('SOIL 220')
const labs = ['L1', 'L2'].map((number) =>
  section('SOIL 220', [], { number, kind: 'lab', parent: lecture.code, credits: 0 })
)
const stat = section('STAT 110')
const past = section('WRIT 101', [], { term: termCode('SP27') })
const studentRecord = {
  held: [
    {
      course: courseCode('SOIL 220'),
      term: termCode('AU27'),
      section: lecture.code,
      credits: 3,
      placedByOffice: false,
      components: [labs[0]!.code]
    }
  ],
  sections: [lecture, ...labs, stat, past],
  fallbacks: []
}
const codes = (list: readonly { code: string }[]) => list.map((one) => one.code)
const draft = (sections: readonly { code: string }[], ...exchanges: string[]) => ({
  sections: codes(sections) as never[],
  exchanges: exchanges.map(courseCode)
})

describe('a term with a draft week', () => {
  it('holds the components that are held, not the others of the same section', () => {
    const week = termWeek(studentRecord, 'AU27', draft([lecture, labs[1]!, stat]))
    expect(codes(week.held)).toEqual(codes([lecture, labs[0]!]))
    expect(week.staying).toEqual(week.held)
  })
  it('leaves out what is picked of a held course, unless it was picked to exchange the seat', () => {
    const sections = [lecture, labs[1]!, stat]
    expect(codes(termWeek(studentRecord, 'AU27', draft(sections)).picked)).toEqual([stat.code])
    const week = termWeek(studentRecord, 'AU27', draft(sections, 'SOIL 220'))
    expect([...week.exchanged]).toEqual(['SOIL 220'])
    expect(week.staying).toEqual([])
    expect(codes(week.picked)).toEqual(codes(sections))
    expect(codes(week.wanted)).toEqual(codes([labs[1]!, stat]))
  })
  it('exchanges nothing for itself, and nothing that is not held', () => {
    const own = termWeek(studentRecord, 'AU27', draft([lecture, labs[0]!], 'SOIL 220'))
    expect([own.exchanged.size, codes(own.staying)]).toEqual([0, codes([lecture, labs[0]!])])
    const strange = termWeek(studentRecord, 'AU27', draft([stat], 'STAT 110'))
    expect([strange.exchanged.size, codes(strange.picked)]).toEqual([0, [stat.code]])
  })
  it('knows only its own term, and stands without a draft week', () => {
    expect(termWeek(studentRecord, 'SP27', draft([past])).picked).toEqual([past])
    expect(termWeek(studentRecord, 'SP27', draft([past])).held).toEqual([])
    expect(termWeek(studentRecord, 'AU27', undefined).picked).toEqual([])
  })
})

describe('credits of a range', () => {
  const field = section('FELD 395', [], { code: 'FIELD' as never, credits: 2, creditsRange: [2, 4] })
  const said = (credits: number | null) => ({
    ...{
      term: termCode('AU27'),
      course: courseCode('FELD 395'),
      list: [],
      onlyWith: null,
      givingUp: null,
      note: null
    },
    credits
  })
  const of = (credits: number | null, held: typeof studentRecord.held = []) => ({
    held,
    sections: [field],
    fallbacks: [said(credits)]
  })
  const seat = {
    ...studentRecord.held[0]!,
    course: field.course,
    section: field.code,
    credits: 3,
    components: []
  }
  it('are those that are chosen, within the range, and the least where none are', () => {
    const picked = (credits: number | null) =>
      termWeek(of(credits), 'AU27', draft([field])).picked.map((one) => one.credits)
    expect([null, 3, 9, 1].map(picked)).toEqual([[2], [3], [4], [2]])
  })
  it('of a seat that is held are its own; others make it an exchange of the same sections', () => {
    const kept = termWeek(of(3, [seat]), 'AU27', undefined)
    expect([kept.held.map((one) => one.credits), kept.picked]).toEqual([[3], []])
    const week = termWeek(of(4, [seat]), 'AU27', undefined)
    expect([...week.exchanged]).toEqual(['FELD 395'])
    expect(week.picked.map((one) => [one.code, one.credits])).toEqual([[field.code, 4]])
    expect(week.held.map((one) => one.credits)).toEqual([3])
  })
})
