/** A student of the demo, before anything is written. */
import { COMMON_SCALE } from '#core/grades'
import type { Standing } from '#core/requisites'
import { catalog } from './catalog'

export interface DemoRecord {
  course: string
  term: string | null
  credits: number
  grade: string | null
  origin: 'here' | 'transfer' | 'test'
}

export interface DemoPick {
  course: string
  numbers: string[]
  /** When its first section met at the time it was picked, where that has changed since. */
  was?: { days: string; start: string; end: string }
}

export interface DemoStudent {
  id: number
  name: string
  situation: string | null
  number: string
  standing: Standing
  level: 'undergraduate' | 'graduate'
  campus: string
  block: string | null
  attendance: 'fullTime' | 'partTime' | 'evening' | 'distance'
  programs: string[]
  confirmed: boolean
  math: number | null
  record: DemoRecord[]
  planned: { course: string; term: string; note?: string }[]
  routeName: string
  reviewAskedAt: Date | null
  reviewNote?: string
  /** Draft weeks of Autumn 2027; the first is gone with. */
  drafts: { name: string; picks: DemoPick[] }[]
  keepFree: { name: string; days: string; start: string; end: string; hard: boolean }[]
  signedOff: { by: string; at: Date; courses: string[] } | null
  holds: {
    title: string
    office: string
    howToLift: string
    amount: number | null
    stops: boolean
    at: Date
  }[]
  advisors: string[]
  aim: string | null
}

/** Courses taken in a term, as "ENDA 110 B+, ENVI 101 A". */
export function finished(list: string, term: string): DemoRecord[] {
  return list.split(', ').map((item) => {
    const [subject, number, grade] = item.split(' ')
    const code = `${subject} ${number}`
    COMMON_SCALE.meaning(grade!)
    return { course: code, term, credits: catalog.course(code).credits, grade: grade!, origin: 'here' }
  })
}
