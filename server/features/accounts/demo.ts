import { theSettings } from '#server/settings'
import { Refused } from '#server/http/problem'

/** What is there in the demo only: elsewhere there is nothing at its address. @throws Refused */
export function mustBeDemo(): void {
  if (!theSettings().demo) throw new Refused(404, 'onlyInDemo', 'This is there in the demo only.')
}
