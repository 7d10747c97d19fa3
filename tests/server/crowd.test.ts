import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { studentId, termCode } from '#core/ids'
import { clashesWith } from '#core/week'
import { membersAt } from '#server/features/crowd/members'
import { wishesFor } from '#server/features/crowd/wishes'
import { offerOf } from '#server/features/sections/sections'
import { SimulatedCrowd, type Guest } from '#server/gateways/crowd'
import { morningText } from '#shared/registration/morning'
import { AUTUMN, demoWorld, OPENS, type World } from './world'

/** The same numbers each time. */
function seeded(seed: number): () => number {
  return () => {
    seed = (seed * 1103515245 + 12345) % 2147483648
    return seed / 2147483648
  }
}

describe('who comes to an opening', () => {
  let world: World
  beforeAll(async () => {
    world = await demoWorld('crowd')
  })
  afterAll(() => world.close())

  it('is for whom it is open by then, with something planned and nothing held; nobody with a part of their own', async () => {
    const before = await membersAt(world.db, AUTUMN, OPENS - 1, 1000)
    const members = await membersAt(world.db, AUTUMN, OPENS, 1000)
    expect(members.length).toBeGreaterThan(before.length)
    expect(before.length).toBeGreaterThan(0)
    expect(members.map((one) => one.signIn)).not.toContain('imke.varga')
    expect(members.every((one) => one.courses.length)).toBe(true)
    expect(await membersAt(world.db, AUTUMN, OPENS, 3)).toHaveLength(3)
  })

  it('wants sections that can be held together, of what is planned, and the same again with the same lots', async () => {
    const members = await membersAt(world.db, AUTUMN, OPENS, 20)
    const offer = await offerOf(world.db, AUTUMN)
    const wishes = members.map(({ courses }) => wishesFor(courses, offer, new Set(), seeded(7)))
    expect(wishes.flat().length).toBeGreaterThan(40)
    for (const [i, own] of wishes.entries()) {
      const sections = own.flatMap((one) => offer.filter((s) => one.sections.includes(s.code)))
      expect(own.every((one) => members[i]!.courses.includes(one.course))).toBe(true)
      for (const { course } of own) {
        const [mine, others] = [true, false].map((is) =>
          sections.filter((one) => (one.course === course) === is)
        )
        expect(clashesWith({ course, sections: mine! }, others!, new Set())).toEqual([])
      }
    }
    expect(members.map(({ courses }) => wishesFor(courses, offer, new Set(), seeded(7)))).toEqual(wishes)
  })
})

describe('the crowd', () => {
  const asked: string[] = []
  /** Answers like the application as far as the crowd looks; the second student is not let in. */
  const server = createServer((request, response) => {
    let body = ''
    request.on('data', (part: Buffer) => (body += part.toString()))
    request.on('end', () => {
      asked.push(`${request.url} ${request.headers.cookie ?? '-'} ${body}`)
      if (body.includes('second')) return response.writeHead(401).end()
      if (request.url === '/api/session') {
        const { name } = JSON.parse(body) as { name: string }
        return response.writeHead(200, { 'set-cookie': `key=${name}; HttpOnly` }).end('{}')
      }
      const lines = ['registered', 'inLine', 'refused'].map((outcome) => ({ outcome }))
      return response.writeHead(200).end(request.url?.endsWith('/runs') ? JSON.stringify({ lines }) : '')
    })
  })
  let address: string
  beforeAll(async () => {
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
    address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
  })
  afterAll(() => server.close())

  const guest = (id: number, signIn: string, advisor: string | null): Guest => ({
    student: studentId(id),
    signIn,
    advisor,
    wishes: [{ course: 'LANG 140', sections: ['LDK7H'], fallbacks: [{ kind: 'line' }] }]
  })

  it('prepares, waits for the opening, runs each sheet once, and counts what came of it', async () => {
    const crowd = new SimulatedCrowd(address, 'secret', () => 0)
    let open = () => {}
    const opening = new Promise<void>((done) => (open = done))
    const about = { term: termCode('AU27'), opens: OPENS }
    const guests = [guest(1, 'first', 'advisor'), guest(2, 'second', null), guest(3, 'third', null)]
    expect(crowd.begin(about, guests, () => opening)).toBe(true)
    expect(crowd.begin(about, guests, () => opening)).toBe(false)
    await expect.poll(() => crowd.view().state).toBe('waiting')
    expect(asked.some((one) => one.includes('/runs'))).toBe(false)
    expect(asked).toContain('/api/students/1/sign-off key=advisor {"term":"AU27"}')
    open()
    await expect.poll(() => crowd.view().state).toBe('over')
    const now = crowd.view()
    expect(now).toMatchObject({
      people: 3,
      prepared: 3,
      answered: 2,
      seats: 2,
      waits: 2,
      refused: 2,
      failed: 1
    })
    expect(asked.filter((one) => one.includes('/runs'))).toHaveLength(2)
    expect(morningText({ ...now, median: 150, slow: 2040 })).toBe(
      '2 of 3 students have run their sheets: 2 lines ended in a seat, 2 in a place in line, 2 were refused. ' +
        'Half of the runs were answered within 0.1 s, 19 of 20 within 2.0 s. 1 request failed.'
    )
  })
})
