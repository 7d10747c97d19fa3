/** How one may sign in here: as the configuration says. */
import { Refused } from '#server/http/problem'
import { theSettings } from '#server/settings'
import type { WaysIn } from '#shared/accounts/responses'

export function waysIn(): WaysIn {
  const { signOn, passwords } = theSettings()
  return { signOn: signOn?.title ?? null, passwords }
}

/** @throws Refused where passwords of this database do not count */
export function mustTakePasswords(): void {
  const { signOn, passwords } = waysIn()
  if (!passwords)
    throw new Refused(
      409,
      'noPasswords',
      `One signs in here with ${signOn}, and not with a password of Ridgeway.`
    )
}
