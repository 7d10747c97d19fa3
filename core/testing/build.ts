/** Tiny builders for tests: everything defaulted, one thing said. */
import type { Course, Season, Term } from '../catalog'
import { compileProgram, type NeedSpec, type PlannedCourse, type Program, type RecordEntry } from '../degree'
import { parseDayLetters } from '../formats'
import { courseCode, termCode, type SectionCode } from '../ids'
import { minutes } from '../time'
import type { Meeting, Section } from '../week'

const SEASON: Record<string, { season: Season; name: string; start: string; end: string }> = {
  SP: { season: 'spring', name: 'Spring', start: '01-18', end: '05-14' },
  SU: { season: 'summer', name: 'Summer', start: '06-07', end: '07-30' },
  AU: { season: 'autumn', name: 'Autumn', start: '08-30', end: '12-17' }
}

export function term(code: string, over: Partial<Term> = {}): Term {
  const { season, name, start, end } = SEASON[code.slice(0, 2)]!
  const year = 2000 + Number(code.slice(2))
  return {
    code: termCode(code),
    name: `${name} ${year % 100}`,
    season,
    year,
    start: `${year}-${start}`,
    end: `${year}-${end}`,
    published: false,
    ...over
  }
}

export function course(code: string, over: Partial<Course> = {}): Course {
  const credits = over.credits ?? 3
  return {
    code: courseCode(code),
    title: `About ${code}`,
    credits,
    creditsMost: credits,
    level: 'undergraduate',
    yearLevel: Number(code.split(' ')[1]![0]),
    offered: { seasons: ['autumn', 'spring'], years: 'every' },
    prerequisite: '',
    categories: [],
    equivalents: [],
    exclusive: [],
    repeatable: false,
    ...over
  }
}

export function entry(
  code: string,
  grade: string | null = 'B',
  over: Partial<RecordEntry> = {}
): RecordEntry {
  return { course: courseCode(code), term: termCode('AU26'), credits: 3, grade, origin: 'here', ...over }
}

export function planned(code: string, term: string, over: Partial<PlannedCourse> = {}): PlannedCourse {
  return { course: courseCode(code), term: termCode(term), credits: 3, note: null, locked: false, ...over }
}

export function program(...needs: (Partial<NeedSpec> & { from: string })[]): Program {
  const full = needs.map((need, i): NeedSpec => {
    const measure = need.measure ?? 'courses'
    const amount = need.amount ?? 1
    return {
      id: `n${i}`,
      title: `need ${i}`,
      measure,
      amount,
      credits: measure === 'credits' ? amount : 3 * amount,
      ...need
    }
  })
  return compileProgram({
    code: 'TEST',
    title: 'Test program',
    shortTitle: 'Test',
    kind: 'degree',
    catalogYear: '2025-26',
    credits: full.reduce((sum, need) => sum + need.credits, 0),
    areas: full.map((need) => ({ id: `area-${need.id}`, title: need.title, needs: [need] }))
  })
}

/** A meeting from day letters and hours: `meeting('MW', '9:30', '10:45')`. */
export function meeting(letters: string, start: string, end: string, over: Partial<Meeting> = {}): Meeting {
  return {
    days: parseDayLetters(letters)!,
    start: minutes(start),
    end: minutes(end),
    from: '2027-08-30',
    to: '2027-12-17',
    campus: 'SLATE',
    building: null,
    room: null,
    ...over
  }
}

let issued = 0

export function section(course: string, meetings: Meeting[] = [], over: Partial<Section> = {}): Section {
  issued++
  return {
    code: `T${String(issued).padStart(4, '0')}` as SectionCode,
    course: courseCode(course),
    term: termCode('AU27'),
    number: String(issued).padStart(2, '0'),
    kind: 'lecture',
    parent: null,
    session: 'FULL',
    half: 'full',
    campus: 'SLATE',
    offSite: null,
    mode: 'inPerson',
    credits: 3,
    creditsRange: null,
    prerequisite: null,
    categories: null,
    topic: null,
    instructors: [],
    capacity: 30,
    taken: 0,
    waitCapacity: 5,
    waiting: 0,
    block: null,
    officeOnly: false,
    permissionNeeded: false,
    onlyFor: null,
    cancelled: false,
    fee: 0,
    reserved: [],
    meetings,
    ...over
  }
}
