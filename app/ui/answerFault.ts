/** In development alone: each answer is read against the published description, which then comes along. */
import { answerCheck, type Described } from '#shared/described'
import description from '../../docs/openapi.json?raw'

const { faultOf } = answerCheck(JSON.parse(description) as Described)

/** What is wrong with an answer; undefined where it is as described. */
export const answerFault = (method: string, address: string, status: number, body: unknown) =>
  faultOf(method, new URL(address, location.origin).pathname, status, JSON.stringify(body))
