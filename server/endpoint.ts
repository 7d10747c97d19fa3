/**
 * What every route does: read the request with Zod, find out who is asking, call one service, shape
 * the answer. A refusal becomes a problem with a sentence; anything unexpected is logged without
 * personal data and answered as a plain failure.
 */
import type { EventHandler, H3Event } from 'h3'
import { defineEventHandler, getQuery, getRouterParams, setResponseHeader, setResponseStatus } from 'h3'
import type { z } from 'zod'
import type { Problem, Who } from '#wire/picture'
import type { Shelf } from '#wire/reading'
import { connect, type Connection, type Database } from './db/connect'
import { whoIs } from './services/accounts/accounts'
import { readShelf } from './services/catalog/shelf'
import { answerFor } from './failure'
import { mustBeOwn, readJson } from './request'
import { Refused } from './services/problem'

let connection: Connection | undefined

function database(): Database {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set')
  connection ??= connect(url)
  return connection.db
}

export async function closeDatabase(): Promise<void> {
  await connection?.close()
  connection = undefined
}

let shelf: { at: number; value: Promise<Shelf> } | undefined
const SHELF_MS = 30_000

/** The catalog, read at most every half minute: it changes by publication, not by use. */
export function currentShelf(): Promise<Shelf> {
  if (!shelf || Date.now() - shelf.at > SHELF_MS) {
    const value = readShelf(database())
    shelf = { at: Date.now(), value }
    value.catch(() => (shelf = undefined))
  }
  return shelf.value
}

interface Shape<P, Q, B> {
  params?: z.ZodType<P>
  query?: z.ZodType<Q>
  body?: z.ZodType<B>
}

interface Request<P, Q, B> {
  event: H3Event
  db: Database
  params: P
  query: Q
  body: B
}

/** A route that anybody may call. */
export function openEndpoint<P = unknown, Q = unknown, B = unknown, R = unknown>(
  shape: Shape<P, Q, B>,
  handle: (request: Request<P, Q, B>) => Promise<R>
): EventHandler {
  return defineEventHandler(async (event) => {
    try {
      mustBeOwn(event)
      // What is answered is somebody's own.
      setResponseHeader(event, 'cache-control', 'no-store')
      const params = parse(shape.params, getRouterParams(event), 'address')
      const query = parse(shape.query, getQuery(event), 'address')
      const body = parse(shape.body, shape.body ? await readJson(event) : undefined, 'body')
      return (await handle({ event, db: database(), params, query, body })) ?? null
    } catch (error) {
      return fail(event, error)
    }
  })
}

/** A route for people who are signed in. */
export function endpoint<P = unknown, Q = unknown, B = unknown, R = unknown>(
  shape: Shape<P, Q, B>,
  handle: (request: Request<P, Q, B> & { who: Who }) => Promise<R>
): EventHandler {
  return openEndpoint(shape, async (request) => {
    const session = await getUserSession(request.event)
    const account = (session.user as { id?: number } | undefined)?.id
    if (!account) throw new Refused(401, 'signedOut', 'You are signed out. Sign in again to go on.')
    return handle({ ...request, who: await whoIs(request.db, account) })
  })
}

function parse<T>(schema: z.ZodType<T> | undefined, value: unknown, where: 'address' | 'body'): T {
  if (!schema) return undefined as T
  const read = schema.safeParse(value)
  if (read.success) return read.data
  const fields = read.error.issues.map((issue) => ({
    field: issue.path.join('.') || where,
    message: fieldMessage(issue, value)
  }))
  const first = fields[0]!
  throw new Refused(400, 'malformed', `${first.field} ${first.message}.`, fields)
}

function fieldMessage(issue: z.core.$ZodIssue, value: unknown): string {
  const given = issue.path.reduce(
    (part: unknown, key) => (part as Record<PropertyKey, unknown> | undefined)?.[key],
    value
  )
  if (given === undefined) return 'is needed'
  if (issue.code === 'invalid_type') return `has to be of type ${issue.expected}`
  if (issue.code === 'invalid_union') return 'is not one of the values that may stand here'
  return issue.message
}

function fail(event: H3Event, error: unknown): Problem {
  const { status, problem } = answerFor(error)
  setResponseStatus(event, status)
  return problem
}
