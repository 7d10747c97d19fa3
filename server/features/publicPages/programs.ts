/** Programs without signing in: the newest version of each, by area and by term. */
import { h, type VNode } from 'vue'
import type { ProgramSpec } from '#core/degree'
import { programOf } from '#shared/catalog/context'
import {
  needAmount,
  needLines,
  needRule,
  slotsCredits,
  suggestedTerms,
  type SheetSlot
} from '#shared/degree/programSheet'
import { hueGiver, OUTSIDE_HUE } from '#shared/tokens'
import { creditsText } from '#shared/words'
import type { Database } from '#server/db/connect'
import { frameOf, guidanceIn, notThere, publicData } from './data'
import { addressOfCourse, table, type PageParts } from './parts'

const KINDS = { degree: 'Degrees', minor: 'Minors', certificate: 'Certificates' } as const

export async function programsPage(db: Database): Promise<PageParts> {
  const data = await publicData(db)
  const body = Object.entries(KINDS).flatMap(([kind, title]) => {
    const own = data.programs.filter((one) => one.kind === kind)
    if (!own.length) return []
    const rows = own.map((one) =>
      h('tr', [
        h('th', { scope: 'row' }, h('a', { href: `/public/programs/${one.code}` }, one.title)),
        h('td', creditsText(one.credits)),
        h('td', `catalog ${one.catalogYear}`)
      ])
    )
    return [table(['Program', 'Credits', 'Newest version'], rows, title)]
  })
  return { ...frameOf(data), place: '/public/programs', title: 'Programs', body }
}

export async function programPage(db: Database, code: string): Promise<PageParts> {
  const data = await publicData(db)
  const spec = data.programs.find((one) => one.code.toLowerCase() === code.toLowerCase())
  if (!spec) throw notThere(`There is no program ${code.slice(0, 40)}.`)
  const hueOf = hueGiver()
  const hues = new Map(spec.areas.map((area) => [area.id, hueOf(area).hue]))
  const terms = suggestedTerms(programOf(spec, data.catalogContext), data.catalogContext.catalog)
  return {
    ...frameOf(data),
    place: '/public/programs',
    title: spec.title,
    beside: [
      h('span', { class: 'pill' }, `catalog ${spec.catalogYear}`),
      h('span', { class: 'pill' }, creditsText(spec.credits))
    ],
    body: [
      spec.note ? h('p', { class: 'text' }, spec.note) : '',
      guidanceIn(data, 'program', [spec.code]),
      h('div', { class: 'sheet' }, [byArea(spec, hues, data.catalog.lists), byTerm(terms, hues)])
    ]
  }
}

function byArea(
  spec: ProgramSpec,
  hues: ReadonlyMap<string, number>,
  lists: Parameters<typeof needRule>[1]
): VNode {
  const areas = spec.areas.map((area) =>
    h('div', { class: `area hue-${hues.get(area.id)}` }, [
      h('h3', area.title),
      area.note ? h('p', { class: 'quiet small' }, area.note) : '',
      h(
        'dl',
        needLines(area.needs).flatMap(({ need, under }) => [
          h('dt', [need.title, under ? h('span', { class: 'quiet small' }, ` ${under}`) : '']),
          h('dd', [needAmount(need), h('span', { class: 'quiet' }, ` · ${needRule(need, lists)}`)])
        ])
      )
    ])
  )
  const beside = [...(spec.conditions ?? []), ...(spec.limits ?? [])].map((one) => h('li', one.title))
  const entry = spec.entry && [
    ...needLines(spec.entry.needs).map(({ need }) => need),
    ...(spec.entry.conditions ?? [])
  ]
  return h('section', { 'aria-labelledby': 'by-area' }, [
    h('h2', { id: 'by-area' }, 'By area'),
    ...areas,
    beside.length ? h('div', [h('h3', 'Beside courses'), h('ul', beside)]) : '',
    entry
      ? h('div', [
          h('h3', spec.entry!.title),
          h(
            'ul',
            entry.map((one) => h('li', one.title))
          )
        ])
      : ''
  ])
}

function byTerm(terms: readonly SheetSlot[][], hues: ReadonlyMap<string, number>): VNode {
  const slot = ({ text, title, area }: SheetSlot) =>
    h('li', { class: `hue-${area === undefined ? OUTSIDE_HUE : hues.get(area)}` }, [
      title ? h('a', { href: addressOfCourse(text) }, text) : h('strong', text),
      ` ${title}`
    ])
  return h('section', { 'aria-labelledby': 'by-term' }, [
    h('h2', { id: 'by-term' }, 'By term'),
    terms.length
      ? h(
          'ol',
          { class: 'terms' },
          terms.map((slots, i) =>
            h('li', [
              h('h3', [`Term ${i + 1} `, h('span', { class: 'quiet small' }, slotsCredits(slots))]),
              h('ul', slots.map(slot))
            ])
          )
        )
      : h('p', { class: 'quiet' }, 'This program suggests no order.')
  ])
}
