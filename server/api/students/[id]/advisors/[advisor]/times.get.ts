import { eq } from 'drizzle-orm'
import { freeTimesParams } from '#shared/appointments/requests'
import type { FreeTimes } from '#shared/appointments/appointments'
import { all } from '#server/db/connect'
import * as t from '#server/db/schema/index'
import { freeSlots } from '#server/features/appointments/hours'
import { campusNow } from '#server/gateways/clock'
import { studentEndpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { Refused } from '#server/http/problem'

/** Times at which an advisor of the student can be booked. */
export default studentEndpoint(
  'GET /api/students/:id/advisors/:advisor/times',
  { params: freeTimesParams },
  async ({ db, student, params: { advisor } }): Promise<FreeTimes> => {
    const [advises] = await db
      .select()
      .from(t.advising)
      .where(all(eq(t.advising.studentId, student), eq(t.advising.advisorId, advisor)))
    if (!advises) throw new Refused(404, 'noAdvisor', 'This is no advisor of the student.')
    const [catalogContext, now] = [await currentCatalogContext(), await campusNow(db)]
    return { slots: await freeSlots(db, { advisor, student }, { catalogContext, now }) }
  }
)
