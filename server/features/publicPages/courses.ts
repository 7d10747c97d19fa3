/** The catalog without signing in: what is found in it, and the page of a course. */
import { h, type VNode } from 'vue'
import { subjectOf, usuallyRuns, type Course } from '#core/catalog'
import { maybeCourseCode } from '#core/ids'
import { ruleOf } from '#core/requisites'
import { patternText, ruleText } from '#shared/catalog/texts'
import { count, creditsText, LEVEL_WORDS } from '#shared/words'
import type { Database } from '#server/db/connect'
import { frameOf, guidanceIn, notThere, publicData, publicOffer, termsShown } from './data'
import { addressOfCourse, choices, courseLink, searchForm, table, type PageParts } from './parts'
import { sectionTable } from './sectionTable'

const MOST_FOUND = 60

export async function coursesPage(
  db: Database,
  { q, subject }: { q: string; subject: string | undefined }
): Promise<PageParts> {
  const data = await publicData(db)
  const { catalog } = data
  const inSubject = new Map<string, Course[]>()
  for (const course of catalog.courses) {
    const code = subjectOf(course.code)
    inSubject.set(code, [...(inSubject.get(code) ?? []), course])
  }
  const chosen = subject === undefined ? undefined : inSubject.get(subject)
  if (subject !== undefined && !chosen) throw notThere(`The catalog has no subject ${subject}.`)
  const found = q ? data.search.find(q, MOST_FOUND + 1) : undefined
  const named = new Map(catalog.subjects.map((one) => [one.code, one.name]))
  const body: VNode[] = [
    searchForm('/public/courses', 'Course, words of it, subject', q),
    choices(
      'Subjects',
      [...inSubject].map(([code, courses]) => ({
        to: `/public/courses?subject=${code}`,
        title: named.get(code) ?? code,
        beside: String(courses.length),
        isHere: code === subject
      }))
    )
  ]
  if (found) {
    const shown = found.slice(0, MOST_FOUND)
    const said = !found.length
      ? `Nothing in the catalog is like “${q}”. Try fewer words, or choose a subject.`
      : found.length > MOST_FOUND
        ? `The best ${MOST_FOUND} for “${q}”; more words find fewer.`
        : `${count(found.length, 'course')} for “${q}”.`
    body.push(h('p', { role: 'status' }, said))
    if (shown.length) body.push(courseTable(shown, 'Courses found'))
  } else if (chosen) body.push(courseTable(chosen, named.get(subject!) ?? subject!))
  else
    body.push(
      h(
        'p',
        `${count(catalog.courses.length, 'course')} in ${count(inSubject.size, 'subject')}. Choose a subject, or look for something.`
      )
    )
  return { ...frameOf(data), place: '/public/courses', title: 'Courses', body }
}

const courseTable = (courses: readonly Course[], caption: string) =>
  table(
    ['Course', 'Title', 'Credits', 'Usually runs'],
    courses.map((one) =>
      h('tr', [
        h('th', { scope: 'row' }, courseLink(one.code)),
        h('td', one.title),
        h('td', creditsOf(one)),
        h('td', patternText(one.offered))
      ])
    ),
    caption
  )

const creditsOf = ({ credits, creditsMost }: Course) =>
  creditsMost > credits ? `${credits} to ${creditsMost}` : String(credits)

export async function coursePage(db: Database, text: string): Promise<PageParts> {
  const data = await publicData(db)
  const code = maybeCourseCode(text)
  const course = code && data.catalogContext.catalog.maybeCourse(code)
  if (!course) throw notThere(`The catalog has no course ${text.slice(0, 40)}.`)
  const rule = ruleOf(course.prerequisite)
  const titles = new Map(data.catalog.categories.map((one) => [one.code, one.title]))
  const facts: [string, string | VNode[]][] = [
    ['Credits', `${creditsOf(course)}, ${LEVEL_WORDS[course.level]}`],
    ['Before it', rule ? ruleText(rule) : 'nothing'],
    ['Usually runs', patternText(course.offered)]
  ]
  if (course.equivalents.length) facts.push(['Counts as', course.equivalents.map(linked)])
  if (course.exclusive.length) facts.push(['Gives no credit beside', course.exclusive.map(linked)])
  if (course.categories.length)
    facts.push(['Counts in', course.categories.map((one) => titles.get(one) ?? one).join(', ')])
  if (course.repeatable) facts.push(['Taken again', 'counts each time'])
  const terms: VNode[] = []
  for (const term of await termsShown(db, data)) {
    const { sections, at } = await publicOffer(db, term.code)
    const own = sections.filter((one) => one.course === course.code)
    if (own.length) terms.push(sectionTable(own, data, at, term.name))
    else
      terms.push(
        h('h2', term.name),
        h(
          'p',
          { class: 'quiet' },
          `No section${usuallyRuns(course.offered, term) ? ', though it usually runs then' : ''}.`
        )
      )
  }
  return {
    ...frameOf(data),
    place: '/public/courses',
    title: `${course.code} ${course.title}`,
    beside: h('span', { class: 'pill' }, creditsText(course.credits)),
    body: [
      h('p', { class: 'text' }, data.descriptions[course.code] || 'Nothing is written about it yet.'),
      guidanceIn(data, 'course', [course.code]),
      h(
        'dl',
        facts.flatMap(([name, value]) => [h('dt', name), h('dd', value)])
      ),
      ...terms
    ]
  }
}

const linked = (code: string, i: number) =>
  h('span', [i ? ', ' : '', h('a', { href: addressOfCourse(code) }, code)])
