import { termParams } from '#shared/requests'
import { endpoint } from '#server/http/endpoint'
import { currentCatalogContext } from '#server/http/thisServer'
import { logAlone } from '#server/db/log'
import { readNeeds } from '#server/features/sections/needs'
import { campusNow } from '#server/gateways/clock'

/**
 * Who needs a course of a term to finish no later, and finds no seat in it if all register when they may; whose names,
 * the registrar sees.
 */
export default endpoint(
  'GET /api/terms/:code/demand/needs',
  { params: termParams },
  async ({ db, who, params }) => {
    const needs = await readNeeds(db, who, params.code, {
      catalogContext: await currentCatalogContext(),
      now: await campusNow(db)
    })
    const found = needs.courses.reduce((sum, one) => sum + one.students.length, 0)
    if (found)
      await logAlone(db, {
        account: who.id,
        student: null,
        action: 'people.read',
        after: { found, term: params.code }
      })
    return needs
  }
)
