import { DrizzleQueryError } from 'drizzle-orm'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { theLog } from '#server/gateways/log'
import { answerFor } from '#server/http/failure'
import { Refused } from '#server/http/problem'

let logged: string[]
beforeEach(() => {
  logged = []
  vi.spyOn(theLog(), 'error').mockImplementation((...parts) => void logged.push(JSON.stringify(parts)))
})
afterEach(() => {
  vi.restoreAllMocks()
})

const query = (code: string) =>
  new DrizzleQueryError(
    'insert into note values (?)',
    ['a private word'],
    Object.assign(new Error(code), { code })
  )

it.each([
  ['PROTOCOL_CONNECTION_LOST', 503, 'database'],
  ['ECONNRESET', 503, 'database'],
  ['ER_LOCK_WAIT_TIMEOUT', 503, 'busy'],
  ['ER_LOCK_DEADLOCK', 503, 'busy'],
  ['ER_DATA_TOO_LONG', 500, 'failed'],
  ['ER_DUP_ENTRY', 500, 'failed']
])(
  'a database that says %s is answered with %i %s, and nothing private is logged',
  (code, status, answer) => {
    const { status: is, problem } = answerFor(query(code))
    expect([is, problem.code]).toEqual([status, answer])
    expect(problem.message).toContain('look first at what is there')
    expect(problem.message).not.toMatch(/nothing was changed/i)
    expect(logged.join()).toContain('A request failed')
    expect(logged.join()).not.toContain('private')
  }
)
it('a refusal says its own sentence and is no failure', () => {
  const refused = new Refused(409, 'changed', 'It was changed.', [{ field: 'version', message: 'is old' }])
  expect(answerFor(refused)).toEqual({
    status: 409,
    problem: {
      code: 'changed',
      message: 'It was changed.',
      fields: [{ field: 'version', message: 'is old' }]
    }
  })
  expect(logged).toEqual([])
})
