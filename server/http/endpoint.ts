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
import type { CatalogContext } from '#shared/catalog/context'
import { ACCESS, type OpenLine, type Relation, type RoleLine, type StudentLine } from './access'
import { inTransaction, type Database, type Transaction } from '#server/db/connect'
import { mustBeAdmitted, mustBeSignedIn, noted } from './admission'
import { answerFor } from './failure'
import { changeKeyOf, mustBeOwn, mustHaveKey, readJson } from './request'
import { mustBe, mustHaveRole } from '#server/features/accounts/accounts'
import type { Session } from '#server/features/accounts/sessions'
import { mustBeOpen } from '#server/features/degree/graduation'
import { logAlone } from '#server/db/log'
import { madeOnce } from '#server/db/madeChange'
import { comesFrom } from '#server/db/news'
import { Refused } from './problem'
import type { ActorContext } from '#server/features/route/route'
import { currentCatalogContext, database, forgetPublished } from './thisServer'
import { written, type Versioned } from './versioned'
import { campusNow } from '#server/gateways/clock'

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
}
interface SignedIn extends Admitted {
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

/** A route for those who are signed in, in one of the roles of its line, and for tokens in whose scopes it is. */
export function endpoint<P = unknown, Q = unknown, B = unknown, R = unknown>(
  line: RoleLine,
  shape: Shape<P, Q, B>,
  handle: (request: Request<P, Q, B> & Admitted) => Promise<R>
): Endpoint<R> {
  return answering(
    shape,
    async ({ event, db }) => {
      const who = await mustBeAdmitted(event, db, line)
      await noted(db, who, line, null, () => mustHaveRole(who, ACCESS[line].roles))
      return { who }
    },
    handle
  )
}

/** One about the session itself, or that lasts as long as it does: for people alone. */
export function sessionEndpoint<P = unknown, Q = unknown, B = unknown, R = unknown>(
  line: RoleLine,
  shape: Shape<P, Q, B>,
  handle: (request: Request<P, Q, B> & SignedIn) => Promise<R>
): Endpoint<R> {
  return answering(
    shape,
    async ({ event, db }) => {
      const session = await mustBeSignedIn(event, db)
      const { who } = session
      await noted(db, who, line, null, () => mustHaveRole(who, ACCESS[line].roles))
      return { who, session }
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
      const who = await mustBeAdmitted(event, db, line)
      const student = studentId(params.id)
      const access = ACCESS[line]
      const relation = await noted(db, who, line, student, () => mustBe(db, who, student, access.relations))
      if (!line.startsWith('GET ') && !('staysOpen' in access)) await mustBeOpen(db, student)
      if ('reads' in access && relation !== 'self')
        await logAlone(db, { account: who.id, student, action: access.reads })
      return { who, student, relation }
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
    const { zone } = await currentCatalogContext()
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
  catalogContext: CatalogContext
}

type OfficeWork<P, B, A> = (tx: Transaction, at: OfficeContext, request: { params: P; body: B }) => Promise<A>

/** A route of an office that changes something, in one transaction, at the campus time; then what follows from it. */
export function officeEndpoint<P = unknown, B = unknown, A = unknown, R = A>(
  line: RoleLine,
  shape: Shape<P, unknown, B>,
  work: OfficeWork<P, B, A>,
  afterwards?: (answer: A, at: { db: Database; catalogContext: CatalogContext }) => Promise<R> | R
): Endpoint<R> {
  return endpoint(line, shape, async ({ db, who, params, body }) => {
    const catalogContext = await currentCatalogContext()
    const answer = await inTransaction(db, async (tx) =>
      work(tx, { who, now: await campusNow(tx), zone: catalogContext.zone, catalogContext }, { params, body })
    )
    // What nothing follows from is the answer itself.
    return afterwards ? afterwards(answer, { db, catalogContext }) : (answer as unknown as R)
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

/** A route that changes something in one transaction, at the campus time, and needs nothing of what is published. */
export const transactionEndpoint = <P = unknown, B = unknown, A = unknown>(
  line: RoleLine,
  shape: Shape<P, unknown, B>,
  work: (tx: Transaction, at: { who: Who; now: number }, request: { params: P; body: B }) => Promise<A>,
  afterwards?: () => void
): Endpoint<A> =>
  endpoint(line, shape, async ({ db, who, params, body }) => {
    const answer = await inTransaction(db, async (tx) =>
      work(tx, { who, now: await campusNow(tx) }, { params, body })
    )
    afterwards?.()
    return answer
  })

/** One by which an institution may be set up: it may change all that is published. */
export const setUpEndpoint = <P = unknown, B = unknown, A = unknown>(
  line: RoleLine,
  shape: Shape<P, unknown, B>,
  work: (tx: Transaction, at: { who: Who; now: number }, request: { params: P; body: B }) => Promise<A>
): Endpoint<A> => transactionEndpoint(line, shape, work, forgetPublished)

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
  const { status, problem } = answerFor(error, event.context.request as string | undefined)
  setResponseStatus(event, status)
  if (error instanceof Refused && error.retryAfter !== undefined)
    setResponseHeader(event, 'retry-after', error.retryAfter)
  return problem
}
