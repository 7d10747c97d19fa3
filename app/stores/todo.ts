import { ago, shortInstant, timeLeft } from '#wire/when'
import { goingWith } from '#wire/reading'
import { termWeek } from '#wire/termWeek'
import { changesSince } from '#core/week'
import { count, findingSubject, findingText, sectionHours, SINCE_WORDS } from '#wire/words'

export interface Todo {
  id: string
  urgency: 'stops' | 'attention' | 'plain' | 'later'
  title: string
  text: string
  when: string
  action?: { label: string; to: string }
}

/** What to do next, in order of consequence. Everything is computed from the record, the route and the clock. */
export const useTodo = defineStore('todo', () => {
  const student = useStudent()
  const college = useCollege()
  const clock = useClock()

  const list = computed((): Todo[] => {
    const picture = student.picture
    const reading = student.reading
    const term = student.coming
    if (!picture || !reading || !term) return []
    const base = `/students/${picture.student.id}`
    const zone = college.zone
    const opens = picture.openings.find((o) => o.term === term.code)?.opens
    const before = opens !== undefined && opens > clock.now
    const things: Todo[] = []

    for (const hold of picture.holds) {
      const amount = hold.amount === null ? '' : `, ${hold.amount.toFixed(2)}`
      things.push({
        id: `hold ${hold.title}`,
        urgency: hold.stopsRegistration ? 'stops' : 'later',
        title: `Hold: ${hold.title.toLowerCase()}${amount}`,
        text: `${hold.stopsRegistration ? 'Stops you from registering.' : 'Does not stop registration.'} Only ${hold.office} can lift it. ${hold.howToLift}`,
        when: before && hold.stopsRegistration ? `before ${shortInstant(opens, zone)}` : ''
      })
    }
    for (const { spec, confirmed, saidInstead } of picture.programs) {
      if (confirmed === 'confirmed') continue
      things.push({
        id: `program ${spec.code}`,
        urgency: 'attention',
        title:
          confirmed === 'wrong' ? `You said that ${spec.shortTitle} is wrong` : `Is ${spec.title} right?`,
        text:
          confirmed === 'wrong'
            ? `You wrote “${saidInstead}”. Until the registrar has settled it, the audit rests on an unconfirmed program.`
            : `Catalog year ${spec.catalogYear}. Everything the audit says rests on it.`,
        when: '',
        ...(confirmed === 'open' ? { action: { label: 'Confirm or report', to: '#program' } } : {})
      })
    }
    const week = goingWith(picture, term.code)
    const { picked, wanted, exchanged } = termWeek(picture, term.code, week)
    const planned = picture.route.courses.filter((p) => p.term === term.code)
    const signOff = picture.signOffs.find((s) => s.term === term.code)
    const held = picture.held.filter((h) => h.term === term.code)
    if (!planned.length && !held.length) {
      things.push({
        id: 'plan',
        urgency: 'attention',
        title: `Nothing is planned for ${term.name}`,
        text: 'Start from what your degree still needs.',
        when: before ? `opens in ${timeLeft(opens - clock.now)}` : '',
        action: { label: 'See what is needed', to: `${base}/degree` }
      })
    } else if (opens !== undefined && planned.some((p) => !held.some((h) => h.course === p.course))) {
      const withSection = new Set(picked.map((s) => s.course))
      const open = planned.filter((p) => !held.some((h) => h.course === p.course))
      const without = open.filter((p) => !withSection.has(p.course)).length
      things.push({
        id: 'opening',
        urgency: before ? 'plain' : 'attention',
        title: before ? `${term.name} opens for you` : `${term.name} is open for you`,
        text: without
          ? `${count(open.length, 'course')} to register, ${without} without a section.`
          : `${count(open.length, 'course')} on the run sheet, each with a section.`,
        when: before ? `in ${timeLeft(opens - clock.now)}` : 'now',
        action: without
          ? { label: 'Pick sections', to: `${base}/week` }
          : { label: 'Run sheet', to: `${base}/register` }
      })
    }
    if (planned.length && !signOff && term.signOffPolicy !== 'none') {
      const asked = picture.route.reviewAskedAt
      const advisor = picture.advisors.find((a) => a.purpose === 'program')
      things.push({
        id: 'sign-off',
        urgency: before ? 'attention' : 'stops',
        title: `${term.name} is not signed off yet`,
        text: asked
          ? `You asked ${advisor?.name ?? 'your advisor'} for a review.`
          : 'Registration needs the sign-off of your advisor. Ask for a review of your route.',
        when: asked ? `asked ${ago(asked, clock.now, zone)}` : '',
        action: { label: asked ? 'See the route' : 'Ask for review', to: `${base}/route` }
      })
    }
    for (const place of picture.waiting) {
      things.push({
        id: `line ${place.section}`,
        urgency: 'plain',
        title: `In line for ${place.course}`,
        text: `You are number ${place.place} for ${place.section} in ${college.termName(place.term)}. A place in line is not a seat.`,
        when: '',
        action: { label: 'Look at other sections', to: `${base}/week` }
      })
    }
    for (const course of exchanged)
      things.push({
        id: `exchange ${course}`,
        urgency: before ? 'plain' : 'attention',
        title: `${course} is to be exchanged`,
        text: 'You hold your seat until the run sheet has taken the other one.',
        when: before ? `in ${timeLeft(opens - clock.now)}` : 'now',
        action: { label: 'Run sheet', to: `${base}/register` }
      })
    if (week) {
      for (const section of wanted) {
        for (const what of changesSince(section, week.asPicked[section.code] ?? null))
          things.push({
            id: `${what} ${section.code}`,
            urgency: 'attention',
            title: `${section.course}-${section.number} ${SINCE_WORDS[what]}`,
            text:
              what === 'moved'
                ? `It is now ${sectionHours(section)}. Pick it again if that suits you, or another one.`
                : 'Pick another section of it before you register.',
            when: before ? `before ${shortInstant(opens, zone)}` : 'now',
            action: { label: 'See the week', to: `${base}/week` }
          })
      }
    }
    for (const finding of reading.findings) {
      things.push({
        id: `finding ${finding.code} ${'course' in finding ? finding.course : finding.term}`,
        urgency: finding.term === term.code ? 'attention' : 'later',
        title: findingSubject(finding, college.shortTerm),
        text: findingText(finding, college.shortTerm),
        when: finding.term === term.code ? 'this coming term' : 'not urgent',
        action: { label: 'Settle', to: `${base}/route` }
      })
    }
    const order = ['stops', 'attention', 'plain', 'later']
    return things.sort((a, b) => order.indexOf(a.urgency) - order.indexOf(b.urgency))
  })
  return { list }
})
