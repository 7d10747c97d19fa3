/** Who may ask: by a session or by a token, in a role or a relation to a student; what is refused is logged. */
import { setResponseHeader, type H3Event } from 'h3'
import type { StudentId } from '#core/ids'
import type { Who } from '#shared/accounts/responses'
import type { Database } from '#server/db/connect'
import { logAlone } from '#server/db/log'
import { signedOut } from '#server/features/accounts/accounts'
import { sessionOf, type Session } from '#server/features/accounts/sessions'
import { whoseToken } from '#server/features/connections/tokens'
import type { RoleLine, StudentLine } from './access'
import { Refused } from './problem'
import { tokenIn } from './request'
import { scopesOf } from './scopes'
import { keyOf } from './session'

/** The session of a browser. @throws Refused without one */
export async function mustBeSignedIn(event: H3Event, db: Database): Promise<Session> {
  const key = keyOf(event)
  const session = key && (await sessionOf(db, key))
  if (!session) throw signedOut()
  return session
}

/** Who asks: by a session, or by a token that is for this line. @throws Refused */
export async function mustBeAdmitted(
  event: H3Event,
  db: Database,
  line: RoleLine | StudentLine
): Promise<Who> {
  const token = tokenIn(event)
  if (token === undefined) return mustBeWhole(db, await mustBeSignedIn(event, db), line)
  const known = await whoseToken(db, token, Date.now())
  if (!known) {
    setResponseHeader(event, 'www-authenticate', 'Bearer error="invalid_token"')
    throw new Refused(401, 'noToken', 'This token was ended, has run out, or never was one.')
  }
  const wanted = scopesOf(line)
  await noted(db, known.who, line, null, () => {
    if (wanted.some((scope) => known.scopes.includes(scope))) return
    setResponseHeader(event, 'www-authenticate', 'Bearer error="insufficient_scope"')
    throw new Refused(
      403,
      'outOfScope',
      wanted.length
        ? `This token is not for this: it needs the scope ${wanted.join(' or ')}.`
        : 'No token is for this: somebody has to sign in.'
    )
  })
  return known.who
}

/** What is answered before a second step is set up: what the page takes on which that is done, all of it public or one's own. */
const MEANWHILE =
  /^(?:GET|POST|DELETE) \/api\/(?:(?:account|session|clock|catalog)(?:\/|$)|terms\/:\w+\/(?:offer|seats)$)/

/** @throws Refused where a second step has to be set up before anything else */
function mustBeWhole(db: Database, { who, needsSecondStep }: Session, line: string): Promise<Who> {
  return noted(db, who, line, null, () => {
    if (!needsSecondStep || MEANWHILE.test(line)) return who
    throw new Refused(403, 'secondStepNeeded', 'First set up a second step, under Signing in.')
  })
}

/** What is refused to somebody is logged, with the line that they tried. */
export async function noted<T>(
  db: Database,
  who: Who,
  line: string,
  student: StudentId | null,
  check: () => Promise<T> | T
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
