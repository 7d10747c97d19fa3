import { h, type VNode } from 'vue'
import type { Instant } from '#core/time'
import type { Section } from '#core/week'
import { seatsText, sectionHours, sectionName } from '#shared/week/texts'
import { shortInstant } from '#shared/when'
import { KIND_WORDS } from '#shared/words'
import type { PublicData } from './data'
import { addressOfCourse, table } from './parts'

/** Sections with what is known of each, and when its seats were counted. */
export function sectionTable(
  sections: readonly Section[],
  { catalog, catalogContext }: PublicData,
  at: Instant,
  caption: string
): VNode {
  const campuses = new Map(catalog.campuses.map((one) => [one.code, one.name]))
  const where = (one: Section) =>
    [
      ...new Set(one.meetings.map((meeting) => meeting.room).filter(Boolean)),
      one.offSite ?? campuses.get(one.campus) ?? one.campus
    ].join(', ')
  const rows = sections.map((one) =>
    h('tr', { class: one.parent ? 'part' : undefined }, [
      h('th', { scope: 'row' }, [
        h('a', { href: addressOfCourse(one.course) }, sectionName(one)),
        one.parent ? ` ${KIND_WORDS[one.kind]}` : '',
        h('span', { class: 'quiet' }, ` ${one.code}`)
      ]),
      h('td', [
        catalogContext.catalog.maybeCourse(one.course)?.title ?? '',
        one.topic ? `: ${one.topic}` : ''
      ]),
      h('td', sectionHours(one)),
      h('td', where(one)),
      h('td', one.instructors.join(', ')),
      h('td', { class: one.capacity - one.taken > 0 ? undefined : 'quiet' }, seatsText(one))
    ])
  )
  return h('div', [
    table(['Section', 'Course', 'When', 'Where', 'With', 'Seats'], rows, caption),
    h(
      'p',
      { class: 'quiet small' },
      `Seats as they were counted ${shortInstant(at, catalogContext.zone)}. Some may be kept for a program.`
    )
  ])
}
