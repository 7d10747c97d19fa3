/**
 * What every route does: see that the request is from here, find out who is asking and whether the table of access lets
 * them, read what they sent with Zod, call one service, shape the answer. A refusal becomes a problem with a sentence;
 * anything unexpected is logged without personal data and answered as a plain failure.
 */
import type { EventHandler, H3Event } from 'h3'
import { defineEventHandler, getQuery, getRouterParams, setResponseHeader, setResponseStatus } from 'h3'
import type { z } from 'zod'
import { studentId, type StudentId } from '#core/ids'
import type { Problem } from '#shared/responses'
import type { Who } from '#shared/accounts/responses'
import type { Shelf } from '#shared/catalog/shelf'
import { ACCESS, type OpenLine, type Relation, type RoleLine, type StudentLine } from './access'
import { connect, inTransaction, type Connection, type Database, type Transaction } from '#server/db/connect'
import { answerFor } from './failure'
import { forgetKept } from './kept'
import { changeKeyOf, mustBeOwn, mustHaveKey, readJson } from './request'
import { SignInAttempts } from '#server/features/accounts/attempts'
import { mustBe, mustHaveRole, signedOut } from '#server/features/accounts/accounts'
import { sessionOf, type Session } from '#server/features/accounts/sessions'
import { mustBeOpen } from '#server/features/degree/graduation'
import { readShelf } from '#server/features/catalog/shelf'
import { logAlone } from '#server/db/log'
import { madeOnce } from '#server/db/madeChange'
import { comesFrom } from '#server/db/news'
import { NewsTail } from '#server/features/news/tail'
import { Refused } from './problem'
import type { ActorContext } from '#server/features/route/route'
import { keyOf } from './session'
import { written, type Versioned } from './versioned'
import { campusNow } from '#server/gateways/clock'

let connection: Connection | undefined
let attempts: SignInAttempts | undefined
let news: NewsTail | undefined

function theConnection(): Connection {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set')
  return (connection ??= connect(url))
}

/** The database of this server. */
export const database = (): Database => theConnection().db

/** Wrong passwords, counted for all servers on this database. */
export const theSignInAttempts = (): SignInAttempts => (attempts ??= new SignInAttempts(theConnection()))

/** The news of all servers on this database. */
export function theNews(): NewsTail {
  if (!news) {
    news = new NewsTail(database())
    // Before any browser hears of it: what it reads then is as it was published.
    news.listen((heard) => {
      if (heard.some((one) => one.news.kind === 'term')) forgetPublished()
    })
  }
  return news
}

/** The catalog, its terms and their offers are read anew by whoever asks next. */
function forgetPublished(): void {
  shelf = undefined
  forgetKept(database())
}

export async function closeDatabase(): Promise<void> {
  await connection?.close()
  connection = undefined
  attempts = undefined
  news = undefined
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
  /** Bytes of the body at most, where these are not as usual. */
  most?: number
  /** Media type of the answer, where it is not JSON. */
  type?: string
  /** Whether what is asked may, or has to, carry a key by which it is done once (`Idempotency-Key`). */
  key?: 'may' | 'must'
}

/** A handler that says what it is asked, and in its type what it answers: from both its description is made. */
export interface Endpoint<R> extends EventHandler {
  readonly shape: Shape<unknown, unknown, unknown>
  /** Of the type alone: nothing is there when it runs. */
  readonly answers?: () => Answered<R>
}
type Answered<R> = R extends Versioned<infer T> ? T : R

interface Request<P, Q, B> {
  event: H3Event
  db: Database
  params: P
  query: Q
  body: B
  /** There is one where it has to be given. */
  key: string | undefined
}

interface Admitted {
  who: Who
  session: Session
}

/** A route that anybody may call. */
export function openEndpoint<P = unknown, Q = unknown, B = unknown, R = unknown>(
  _line: OpenLine,
  shape: Shape<P, Q, B>,
  handle: (request: Request<P, Q, B>) => Promise<R>
): Endpoint<R> {
  return answering(shape, () => Promise.resolve({}), handle)
}

/** A route for people who are signed in, in one of the roles of its line. */
export function endpoint<P = unknown, Q = unknown, B = unknown, R = unknown>(
  line: RoleLine,
  shape: Shape<P, Q, B>,
  handle: (request: Request<P, Q, B> & Admitted) => Promise<R>
): Endpoint<R> {
  return answering(
    shape,
    async ({ event, db }) => {
      const admitted = await mustBeSignedIn(event, db)
      await noted(db, admitted.who, line, null, () => {
        mustHaveRole(admitted.who, ACCESS[line].roles)
        return Promise.resolve()
      })
      return admitted
    },
    handle
  )
}

/** A route about one student, for those who stand in a relation of its line to them. What tells of others is logged. */
export function studentEndpoint<P extends { id: number }, Q = unknown, B = unknown, R = unknown>(
  line: StudentLine,
  shape: Shape<P, Q, B> & { params: z.ZodType<P> },
  handle: (request: Request<P, Q, B> & Admitted & { student: StudentId; relation: Relation }) => Promise<R>
): Endpoint<R> {
  return answering(
    shape,
    async ({ event, db, params }) => {
      const { who, session } = await mustBeSignedIn(event, db)
      const student = studentId(params.id)
      const access = ACCESS[line]
      const relation = await noted(db, who, line, student, () => mustBe(db, who, student, access.relations))
      if (!line.startsWith('GET ') && !('staysOpen' in access)) await mustBeOpen(db, student)
      if ('reads' in access && relation !== 'self')
        await logAlone(db, { account: who.id, student, action: access.reads })
      return { who, session, student, relation }
    },
    handle
  )
}

/**
 * A route that changes something of a student, in one transaction, at the campus time; once for each key, where the
 * client names one (`Idempotency-Key`, as drafted by the IETF's HTTPAPI working group).
 */
export function changeEndpoint<P extends { id: number }, Q = unknown, B = unknown, A = unknown>(
  line: StudentLine,
  shape: Shape<P, Q, B> & { params: z.ZodType<P> },
  work: (
    tx: Transaction,
    at: ActorContext,
    request: { params: P; query: Q; body: B; relation: Relation }
  ) => Promise<A>
): Endpoint<A> {
  const once = { ...shape, key: 'may' as const }
  return studentEndpoint(line, once, async ({ db, who, student, relation, params, query, body, key }) => {
    const { zone } = await currentShelf()
    return inTransaction(db, async (tx) => {
      const make = async () =>
        work(tx, { who, student, now: await campusNow(tx), zone }, { params, query, body, relation })
      if (key === undefined) return make()
      comesFrom(tx, key)
      return madeOnce(tx, { account: who.id, key, what: { line, params, query, body } }, make)
    })
  })
}

interface OfficeContext {
  who: Who
  now: number
  zone: string
  shelf: Shelf
}

type OfficeWork<P, B, A> = (tx: Transaction, at: OfficeContext, request: { params: P; body: B }) => Promise<A>

/** A route of an office that changes something, in one transaction, at the campus time; then what follows from it. */
export function officeEndpoint<P = unknown, B = unknown, A = unknown, R = A>(
  line: RoleLine,
  shape: Shape<P, unknown, B>,
  work: OfficeWork<P, B, A>,
  afterwards?: (answer: A, at: { db: Database; shelf: Shelf }) => Promise<R> | R
): Endpoint<R> {
  return endpoint(line, shape, async ({ db, who, params, body }) => {
    const shelf = await currentShelf()
    const answer = await inTransaction(db, async (tx) =>
      work(tx, { who, now: await campusNow(tx), zone: shelf.zone, shelf }, { params, body })
    )
    // What nothing follows from is the answer itself.
    return afterwards ? afterwards(answer, { db, shelf }) : (answer as unknown as R)
  })
}

/** One that changes what is published: programs, terms, their openings. */
export const termEndpoint = <P = unknown, B = unknown, A = unknown>(
  line: RoleLine,
  shape: Shape<P, unknown, B>,
  work: OfficeWork<P, B, A>
): Endpoint<A> =>
  officeEndpoint(line, shape, work, (answer) => {
    forgetPublished()
    return answer
  })

/** One by which an institution may be set up: it needs nothing of what is published, and may change all of it. */
export const setUpEndpoint = <P = unknown, B = unknown, A = unknown>(
  line: RoleLine,
  shape: Shape<P, unknown, B>,
  work: (tx: Transaction, at: { who: Who; now: number }, request: { params: P; body: B }) => Promise<A>
): Endpoint<A> =>
  endpoint(line, shape, async ({ db, who, params, body }) => {
    const answer = await inTransaction(db, async (tx) =>
      work(tx, { who, now: await campusNow(tx) }, { params, body })
    )
    forgetPublished()
    return answer
  })

async function mustBeSignedIn(event: H3Event, db: Database): Promise<Admitted> {
  const key = keyOf(event)
  const session = key && (await sessionOf(db, key))
  if (!session) throw signedOut()
  return { who: session.who, session }
}

/** What is refused to somebody is logged, with the line that they tried. */
async function noted<T>(
  db: Database,
  who: Who,
  line: string,
  student: StudentId | null,
  check: () => Promise<T>
): Promise<T> {
  try {
    return await check()
  } catch (error) {
    if (error instanceof Refused) {
      const after = { line, code: error.code, student }
      // There may be no such student.
      await logAlone(db, { account: who.id, student: null, action: 'access.refused', after })
    }
    throw error
  }
}

/** Reads and admits in this order: where it goes, who asks, and only then what they brought. */
function answering<P, Q, B, A extends object, R>(
  shape: Shape<P, Q, B>,
  admit: (request: { event: H3Event; db: Database; params: P }) => Promise<A>,
  handle: (request: Request<P, Q, B> & A) => Promise<R>
): Endpoint<R> {
  const handler = defineEventHandler(async (event) => {
    try {
      // What is answered is somebody's own.
      setResponseHeader(event, 'cache-control', 'no-store')
      mustBeOwn(event)
      const db = database()
      const params = parse(shape.params, getRouterParams(event), 'address')
      const admitted = await admit({ event, db, params })
      const query = parse(shape.query, getQuery(event), 'address')
      const body = parse(shape.body, shape.body ? await readJson(event, shape.most) : undefined, 'body')
      const key = keyIn(event, shape.key)
      const answer = (await handle({ event, db, params, query, body, key, ...admitted })) ?? null
      if (shape.type && !event.handled) setResponseHeader(event, 'content-type', shape.type)
      return await written(event, answer)
    } catch (error) {
      return fail(event, error)
    }
  })
  return Object.assign(handler, { shape: shape as Shape<unknown, unknown, unknown> })
}

function keyIn(event: H3Event, asked: 'may' | 'must' | undefined): string | undefined {
  if (!asked) return undefined
  return asked === 'must' ? mustHaveKey(event) : changeKeyOf(event)
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

export function fail(event: H3Event, error: unknown): Problem {
  const { status, problem } = answerFor(error)
  setResponseStatus(event, status)
  if (error instanceof Refused && error.retryAfter !== undefined)
    setResponseHeader(event, 'retry-after', error.retryAfter)
  return problem
}
