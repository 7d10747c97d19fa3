/** Seats of the demo: whoever is enrolled has a section with a seat that does not clash. */
import { parseDayLetters } from '#core/formats'
import { clashOf, type Meeting } from '#core/week'
import { datesOf, type DemoSection } from './offer'

export interface DemoSeat {
  student: number
  section: DemoSection
  at: Date
  office: boolean
}

interface Who {
  id: number
  block: string | null
  campus: string
  attendance: string
}

export class Enrolment {
  readonly seats: DemoSeat[] = []
  private readonly taken = new Map<number, number>()
  private readonly mine = new Map<string, DemoSection[]>()
  private readonly meetings = new Map<number, Meeting[]>()

  constructor(private readonly sections: readonly DemoSection[]) {}

  takenIn(section: DemoSection): number {
    return this.taken.get(section.id) ?? 0
  }

  /** Takes the best fitting section with its labs; false when none fits. Clashes never. */
  enrol(who: Who, course: string, term: string, at: Date, { office = false } = {}): boolean {
    const held = this.mine.get(`${who.id} ${term}`) ?? []
    const mains = this.sections
      .filter((s) => s.course === course && s.term === term && s.parent === null && this.fits(s, who, held))
      .filter((s) => s.block === null || s.block === who.block)
      .sort((a, b) => liking(b, who) - liking(a, who) || a.id - b.id)
    for (const main of mains) {
      const labs = this.sections.filter((s) => s.parent === main.id)
      const lab = labs.find((s) => this.fits(s, who, [...held, main]))
      if (labs.length && !lab) continue
      const taken = lab ? [main, lab] : [main]
      for (const section of taken) {
        this.seats.push({ student: who.id, section, at, office })
        this.taken.set(section.id, this.takenIn(section) + 1)
      }
      this.mine.set(`${who.id} ${term}`, [...held, ...taken])
      return true
    }
    return false
  }

  private fits(section: DemoSection, who: Who, held: readonly DemoSection[]): boolean {
    if (this.takenIn(section) >= section.capacity) return false
    return held.every((other) =>
      this.meetingsOf(section).every((a) => this.meetingsOf(other).every((b) => clashOf(a, b) === undefined))
    )
  }

  private meetingsOf(section: DemoSection): Meeting[] {
    let list = this.meetings.get(section.id)
    if (!list) {
      const { fromOn, toOn } = datesOf(section)
      list = section.meetings.map((m) => ({
        days: parseDayLetters(m.days)!,
        start: m.start,
        end: m.end,
        from: fromOn,
        to: toOn,
        campus: section.campus,
        building: null,
        room: null
      }))
      this.meetings.set(section.id, list)
    }
    return list
  }
}

function liking(section: DemoSection, who: Who): number {
  const evening = section.meetings.some((m) => m.start >= 17 * 60)
  return (
    (section.block !== null && section.block === who.block ? 8 : 0) +
    (who.attendance === 'evening' && (evening || section.mode === 'online') ? 4 : 0) +
    (section.campus === who.campus ? 2 : 0) +
    (evening || section.mode !== 'inPerson' ? 0 : 1)
  )
}
