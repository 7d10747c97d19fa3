/** The sections of a term without signing in, with their seats as they were counted last. */
import { h, type VNode } from 'vue'
import { subjectOf } from '#core/catalog'
import type { Section } from '#core/week'
import { sectionName } from '#shared/week/texts'
import { count } from '#shared/words'
import type { Database } from '#server/db/connect'
import { frameOf, guidanceIn, notThere, publicData, publicOffer, termsShown, type PublicData } from './data'
import { choices, searchForm, type PageParts } from './parts'
import { sectionTable } from './sectionTable'

const MOST_FOUND = 60

export async function offerPage(
  db: Database,
  { term: wanted, q, subject }: { term: string | undefined; q: string; subject: string | undefined }
): Promise<PageParts> {
  const data = await publicData(db)
  const terms = await termsShown(db, data)
  const frame = { ...frameOf(data), place: '/public/offer' as const }
  if (!terms.length && wanted === undefined)
    return { ...frame, title: 'Offer', body: h('p', 'No term is published at the moment.') }
  // What somebody looks for is most often the next term.
  const term = wanted === undefined ? terms.at(-1)! : terms.find((one) => one.code === wanted)
  if (!term) throw notThere(`There is no published term ${wanted!.slice(0, 20)} that is not over.`)
  const { at, sections } = await publicOffer(db, term.code)
  const here = `/public/offer/${term.code}`
  const bySubject = new Map<string, number>()
  for (const { course, parent } of sections)
    if (!parent) bySubject.set(subjectOf(course), (bySubject.get(subjectOf(course)) ?? 0) + 1)
  if (subject !== undefined && !bySubject.has(subject))
    throw notThere(`${term.name} has no sections of ${subject.slice(0, 20)}.`)
  const named = new Map(data.catalog.subjects.map((one) => [one.code, one.name]))
  const found = q ? sectionsLike(q, sections, data) : undefined
  const body: (VNode | '')[] = [
    choices(
      'Terms',
      terms.map((one) => ({ to: `/public/offer/${one.code}`, title: one.name, isHere: one === term }))
    ),
    guidanceIn(data, 'term', [term.code]),
    searchForm(here, 'Course, words of its title, instructor', q),
    choices(
      'Subjects',
      [...bySubject].sort().map(([code, many]) => ({
        to: `${here}?subject=${code}`,
        title: named.get(code) ?? code,
        beside: String(many),
        isHere: code === subject
      }))
    )
  ]
  const chosen = found ?? (subject ? sections.filter((one) => subjectOf(one.course) === subject) : undefined)
  const caption =
    subject && !found ? `${named.get(subject) ?? subject}, ${term.name}` : `Sections of ${term.name}`
  if (!chosen) body.push(h('p', countText(sections, bySubject.size)))
  else if (!chosen.length)
    body.push(status(`No section of ${term.name} is like “${q}”. Try fewer words, or choose a subject.`))
  else if (found) body.push(...firstOf(chosen, (shown) => sectionTable(shown, data, at, caption)))
  else body.push(sectionTable(chosen, data, at, caption))
  return { ...frame, title: `Offer of ${term.name}`, body }
}

const status = (text: string): VNode => h('p', { role: 'status' }, text)

const countText = (sections: readonly Section[], subjects: number): string =>
  `${count(sections.filter((one) => !one.parent).length, 'section')} in ${count(subjects, 'subject')}. Choose a subject, or look for something.`

/** So many as fit a page, and how many there are. */
function firstOf(found: readonly Section[], table: (shown: readonly Section[]) => VNode): VNode[] {
  const shown = table(found.slice(0, MOST_FOUND))
  if (found.length <= MOST_FOUND) return [shown]
  return [status(`The first ${MOST_FOUND} of ${found.length}; more words find fewer.`), shown]
}

/** All words stand somewhere in the course, its title, the topic, an instructor or the number. */
function sectionsLike(q: string, sections: readonly Section[], { catalogContext }: PublicData): Section[] {
  const words = q.toLowerCase().split(/\s+/).filter(Boolean)
  const title = (section: Section) => catalogContext.catalog.maybeCourse(section.course)?.title ?? ''
  return sections.filter((one) => {
    const text = [one.course, sectionName(one), one.code, title(one), one.topic ?? '', ...one.instructors]
      .join(' ')
      .toLowerCase()
    return words.every((word) => text.includes(word))
  })
}
