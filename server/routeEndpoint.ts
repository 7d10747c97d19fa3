/** Endpoints that change a student's routes: by the student mostly, in one transaction, at the campus time. */
import type { z } from 'zod'
import { studentId } from '#core/ids'
import type { RouteAnswer } from '#wire/picture'
import { inTransaction, type Transaction } from './db/connect'
import { currentShelf, endpoint } from './endpoint'
import { announce } from './live'
import { mustBe } from './services/accounts/accounts'
import { mayEdit, type Occasion } from './services/route/route'
import { campusNow } from './standins/clock'

export function routeEndpoint<P extends { id: number }, B, A>(
  shape: { params: z.ZodType<P>; body?: z.ZodType<B> },
  work: (tx: Transaction, at: Occasion, request: { params: P; body: B }) => Promise<A>,
  {
    /** Whether the program advisor may do it too, on routes that the student has opened to them. */
    advisors = false,
    /** Nobody else needs to hear of it. */
    quiet = false
  } = {}
) {
  return endpoint(shape, async ({ db, who, params, body }) => {
    const student = studentId(params.id)
    const { zone } = await currentShelf()
    const answer = await inTransaction(db, async (tx) => {
      const relation = await mustBe(
        tx,
        who,
        student,
        'self',
        ...(advisors ? (['programAdvisor'] as const) : [])
      )
      if (relation !== 'self') await mayEdit(tx, student, (body as { route: number | null }).route)
      return work(tx, { who, student, now: await campusNow(tx), zone }, { params, body })
    })
    if (quiet) return answer
    const { route = null, version = null } = (answer ?? {}) as Partial<Pick<RouteAnswer, 'route' | 'version'>>
    announce(student, { by: who.name, route, version })
    return answer
  })
}
