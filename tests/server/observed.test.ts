import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { createApp, createRouter, defineEventHandler, toNodeListener } from 'h3'
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { theLog } from '#server/gateways/log'
import { beginMetrics, metricsText, timed } from '#server/gateways/metrics'
import { fail } from '#server/http/endpoint'
import { observe } from '#server/http/observed'
import { demoWorld, type World } from './world'

let world: World
let server: Server
let address: string
let told: Record<string, unknown>[]
let failures: Record<string, unknown>[]

beforeAll(async () => {
  world = await demoWorld('observed')
  beginMetrics(() => world.db)
  const router = createRouter()
    .get(
      '/api/students/:id',
      defineEventHandler(() => ({ name: 'Imke Varga' }))
    )
    .get(
      '/api/broken/:id',
      defineEventHandler((event) => fail(event, new Error('it broke')))
    )
  const app = createApp({ onRequest: (event) => observe(event, true) }).use(router)
  server = createServer(toNodeListener(app)).listen(0)
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
})
afterAll(async () => {
  server.close()
  await world.close()
})
beforeEach(() => {
  told = []
  failures = []
  vi.spyOn(theLog(), 'info').mockImplementation((line) => void told.push(line as Record<string, unknown>))
  vi.spyOn(theLog(), 'error').mockImplementation(
    (line) => void failures.push(line as Record<string, unknown>)
  )
})

describe('a request', () => {
  it('is told by the pattern of its address and a number, and names nobody', async () => {
    const answer = await fetch(`${address}/api/students/somebody?name=Imke`)
    await expect.poll(() => told).toHaveLength(1)
    const [line] = told
    expect(line).toMatchObject({ method: 'GET', route: '/api/students/:id', status: 200 })
    expect(line!.request).toBe(answer.headers.get('x-request-id'))
    expect(JSON.stringify(line)).not.toMatch(/somebody|Imke/)
  })
  it('keeps the number that a proxy gave it, where that is one', async () => {
    const numbered = async (number: string) =>
      (await fetch(`${address}/api/students/1`, { headers: { 'x-request-id': number } })).headers.get(
        'x-request-id'
      )
    expect(await numbered('proxy-0001')).toBe('proxy-0001')
    expect(await numbered('<script>alert(1)</script>')).toMatch(/^[0-9a-f-]{36}$/)
  })
  it('that fails is told with the same number', async () => {
    const answer = await fetch(`${address}/api/broken/7`)
    expect(answer.status).toBe(500)
    expect(failures).toMatchObject([
      { request: answer.headers.get('x-request-id'), error: 'Error', why: 'it broke' }
    ])
  })
})

describe('the figures', () => {
  it('count requests by pattern, work by what it is, and what waits in the database', async () => {
    await timed('tidying', () => Promise.resolve())
    await expect(timed('tidying', () => Promise.reject(new Error('no')))).rejects.toThrow('no')
    const text = await metricsText()
    expect(text).toMatch(
      /http_request_duration_seconds_count\{method="GET",route="\/api\/students\/:id",status="200"\} 3/
    )
    expect(text).toMatch(/ridgeway_job_duration_seconds_count\{job="tidying",ended="failed"\} 1/)
    expect(text).toContain('ridgeway_waiting{what="runs"} 0')
    expect(text).toMatch(/ridgeway_database_locks\{what="innodb_row_lock_waits"\} \d/)
    expect(text).toContain('process_cpu_seconds_total')
    // As OpenMetrics 1.0 ends every exposition.
    expect(text.trimEnd().endsWith('# EOF')).toBe(true)
    expect(text).not.toMatch(/somebody|Imke/)
  })
})
