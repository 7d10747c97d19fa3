/** Whom the institution's sign-on speaks of, as an account here. */
import { eq } from 'drizzle-orm'
import { inTransaction, type Database } from '#server/db/connect'
import { logEvent } from '#server/db/log'
import * as t from '#server/db/schema/index'
import { campusNow } from '#server/gateways/clock'
import type { SignedOn } from '#server/gateways/signOn'
import { Refused } from '#server/http/problem'
import type { SignOnSettings } from '#server/settings'
import { REFUSED_SIGN_ON, type Role, type SignOnRefusal, type Who } from '#shared/accounts/responses'
import { SIGN_IN } from '#shared/accounts/requests'
import { note, whoIs } from './accounts'
import { addAccount } from './staff'

/** Roles of which an account needs nothing but a name. */
const MADE_ROLES: readonly Role[] = ['registrar', 'programAdvisor', 'supportAdvisor']

/**
 * Signs in whoever came back from the sign-on. Where the configuration says which group has which role, the account's own
 * has to be among them, and somebody who is not here yet gets an account of the one role that they have.
 *
 * @throws Refused
 */
export async function signOnAs(db: Database, said: SignedOn, roles: SignOnSettings['roles']): Promise<Who> {
  const signIn = said.signIn.trim().toLowerCase()
  const [row] = await db.select().from(t.account).where(eq(t.account.signIn, signIn))
  const known = row?.signIn === signIn ? row : undefined
  const theirs = [...roles].flatMap(([role, group]) => (said.groups.includes(group) ? [role] : []))
  const refuse = async (code: SignOnRefusal): Promise<never> => {
    await note(db, 'signIn.refused', known?.id, { code, by: 'signOn' })
    throw new Refused(403, code, REFUSED_SIGN_ON[code])
  }
  if (known?.endedAt) return refuse('signOnUnknown')
  if (known && roles.has(known.role) && !theirs.includes(known.role)) return refuse('signOnRole')
  const id = known?.id ?? (await make(db, { ...said, signIn }, theirs)) ?? (await refuse('signOnUnknown'))
  await note(db, 'signIn.made', id, { by: 'signOn' })
  return whoIs(db, id)
}

/** The number of a new account; undefined where it is not clear which it would be. */
async function make(db: Database, said: SignedOn, theirs: readonly Role[]): Promise<number | undefined> {
  const possible = theirs.filter((role) => MADE_ROLES.includes(role))
  const [role] = possible
  const { name, signIn } = said
  if (possible.length !== 1 || !role || !name || !SIGN_IN.test(signIn)) return undefined
  const mail = said.mail && said.mail.length <= 120 ? said.mail : null
  return inTransaction(db, async (tx) => {
    const account = await addAccount(tx, { name: name.slice(0, 80), signIn, role, mail })
    const at = await campusNow(tx)
    await logEvent(tx, {
      at,
      account,
      student: null,
      action: 'account.joined',
      after: { signIn, role, by: 'signOn' }
    })
    return account
  })
}
