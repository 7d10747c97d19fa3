/** What the page's head asks for before any code of the application is there. */
import { runInNewContext } from 'node:vm'
import { expect, it } from 'vitest'
import { EARLY_READS } from './earlyReads'

const NOW = 1_000
const catalog = {
  terms: [
    { code: 'SP27', published: true, addEndsAt: NOW },
    { code: 'AU27', published: true, addEndsAt: NOW + 1 },
    { code: 'SP28', published: false, addEndsAt: NOW + 2 }
  ]
}
type Answer = { ok: boolean; clone: () => { json: () => Promise<unknown> } }

/** Runs the script at an address; answers are given by path, of those without one nothing is heard. */
async function begunAt(pathname: string, answers: Record<string, unknown>, taken: string[] = []) {
  const asked: string[] = []
  const page: { ridgewayBegun?: Record<string, Promise<Answer> | undefined> } = {}
  runInNewContext(EARLY_READS, {
    window: page,
    location: { pathname },
    setTimeout: () => 0,
    fetch: (path: string) => {
      asked.push(path)
      if (!(path in answers)) return new Promise(() => undefined)
      const body = answers[path]
      const answer = { ok: body !== 401, clone: () => ({ json: () => Promise.resolve(body) }) }
      return Promise.resolve(answer)
    }
  })
  for (const path of taken) page.ridgewayBegun![path] = undefined
  await new Promise((resolve) => setTimeout(resolve))
  return { asked, begun: Object.keys(page.ridgewayBegun ?? {}) }
}
const ALL = { '/api/session': { who: 1 }, '/api/clock': { now: NOW }, '/api/catalog': catalog }

it('asks for the record after the session, and for what is on offer of each term that is', async () => {
  const { asked, begun } = await begunAt('/students/1/today', ALL)
  expect(asked).toEqual([
    ...['/api/session', '/api/clock', '/api/catalog', '/api/students/1'],
    ...['/api/terms/AU27/offer', '/api/terms/AU27/seats']
  ])
  expect(new Set(begun)).toEqual(new Set(asked))
})
it('leaves to the application what it has taken up itself', async () => {
  const { asked } = await begunAt('/desk', ALL, ['/api/catalog'])
  expect(asked).toEqual(['/api/session', '/api/clock', '/api/catalog'])
})
it('asks for no record and no offer where nobody has signed in', async () => {
  const nobody = { '/api/session': null, '/api/clock': { now: NOW }, '/api/catalog': 401 }
  const { asked } = await begunAt('/students/1/today', nobody)
  expect(asked).toEqual(['/api/session', '/api/clock', '/api/catalog'])
})
it('asks for nothing at a door', async () => {
  for (const door of ['/sign-in', '/welcome/abc', '/shared/abc'])
    expect((await begunAt(door, ALL)).asked).toEqual([])
})
