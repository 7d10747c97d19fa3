/** What public pages are put together from. They are written out here whole, and load no script. */
import { h, type VNode, type VNodeArrayChildren } from 'vue'
import { renderToString } from 'vue/server-renderer'
import { guidanceOn, type GuidanceAbout, type GuidanceText } from '#shared/catalog/guidance'

type Inner = VNode | string | VNodeArrayChildren

const PLACES = [
  { to: '/public', title: 'The year' },
  { to: '/public/courses', title: 'Courses' },
  { to: '/public/programs', title: 'Programs' },
  { to: '/public/offer', title: 'Offer' },
  { to: '/public/openings', title: 'Openings' }
] as const
type Place = (typeof PLACES)[number]['to']

export interface PageParts {
  institution: string
  zone: string
  place?: Place
  title: string
  /** Beside the title. */
  beside?: Inner
  body: Inner
}

/** A page as the browser gets it. */
export async function writtenPage({
  institution,
  zone,
  place,
  title,
  beside,
  body
}: PageParts): Promise<string> {
  const head = h('head', [
    h('meta', { charset: 'utf-8' }),
    h('meta', { name: 'viewport', content: 'width=device-width, initial-scale=1' }),
    h('meta', { name: 'color-scheme', content: 'light dark' }),
    h('title', `${title} · ${institution}`),
    h('link', { rel: 'icon', href: '/ridge.svg', type: 'image/svg+xml' }),
    h('link', { rel: 'stylesheet', href: '/public/colours.css' }),
    h('link', { rel: 'stylesheet', href: '/public-pages.css' })
  ])
  const band = h('header', { class: 'band' }, [
    h('a', { class: 'mark', href: '/public' }, [h('strong', 'Ridgeway'), ' ', h('span', institution)]),
    h(
      'nav',
      { 'aria-label': 'Places' },
      PLACES.map((one) =>
        h('a', { href: one.to, 'aria-current': one.to === place ? 'page' : undefined }, one.title)
      )
    ),
    h('a', { class: 'sign-in', href: '/sign-in' }, 'Sign in')
  ])
  const main = h('main', { id: 'main' }, [
    h('div', { class: 'head' }, [h('h1', title), beside ?? '']),
    ...(Array.isArray(body) ? body : [body])
  ])
  const foot = h('footer', [
    zone ? `Times are those of the campus (${zone}). ` : '',
    h('a', { href: '/public/interface' }, 'Interface for programs')
  ])
  const page = h('html', { lang: 'en' }, [
    head,
    h('body', [h('a', { class: 'skip', href: '#main' }, 'Skip to the page'), band, main, foot])
  ])
  return `<!doctype html>${await renderToString(page)}`
}

/** Something to be searched for; what else is chosen stays chosen. */
export const searchForm = (
  action: string,
  label: string,
  q: string,
  others: Record<string, string | undefined> = {}
): VNode =>
  h('form', { action, method: 'get', role: 'search' }, [
    h('label', [`${label} `, h('input', { type: 'search', name: 'q', value: q, maxlength: 100 })]),
    ...Object.entries(others).map(([name, value]) =>
      value ? h('input', { type: 'hidden', name, value }) : ''
    ),
    h('button', { type: 'submit' }, 'Find')
  ])

export const table = (head: readonly string[], rows: VNode[], caption: string): VNode =>
  h('div', { class: 'wide', role: 'region', 'aria-label': caption, tabindex: 0 }, [
    h('table', { class: head.length > 4 ? 'many' : undefined }, [
      h('caption', caption),
      h(
        'thead',
        h(
          'tr',
          head.map((one) => h('th', { scope: 'col' }, one))
        )
      ),
      h('tbody', rows)
    ])
  ])

/** One of several that are looked at in turn. */
export const choices = (
  label: string,
  all: readonly { to: string; title: string; isHere: boolean; beside?: string }[]
): VNode =>
  h('nav', { class: 'choices', 'aria-label': label }, [
    ...all.map((one) =>
      h('a', { href: one.to, 'aria-current': one.isHere ? 'true' : undefined }, [
        one.title,
        one.beside ? h('span', ` ${one.beside}`) : ''
      ])
    )
  ])

/** What the institution itself says about something. */
export const guidanceNotes = (
  all: readonly GuidanceText[],
  institution: string,
  about: GuidanceAbout,
  keys?: readonly string[]
): VNode | '' => {
  const texts = guidanceOn(all, about, keys)
  if (!texts.length) return ''
  return h(
    'aside',
    { class: 'guidance', 'aria-label': `From ${institution}` },
    texts.map(({ title, text, link }) =>
      h('p', [
        h('strong', `${title}.`),
        ` ${text} `,
        link
          ? h('a', { href: link, rel: 'noreferrer', 'aria-label': `Read more about ${title}` }, 'Read more')
          : ''
      ])
    )
  )
}

export const addressOfCourse = (code: string): string => `/public/courses/${code.replace(' ', '-')}`
export const courseLink = (code: string): VNode => h('a', { href: addressOfCourse(code) }, code)
