/** Which permission would set a refusal aside, and for which section. */
import type { Refusal } from '../findings'
import type { SectionCode } from '../ids'
import type { Option, PermissionKind } from '../week'

/** Undefined for what no permission sets aside. */
export function permissionFor(
  refusal: Refusal,
  { main }: Pick<Option, 'main'>
): { kind: PermissionKind; section: SectionCode } | undefined {
  switch (refusal.code) {
    case 'prerequisite':
    case 'corequisite':
    case 'clash':
    case 'load':
      return { kind: refusal.code, section: main.code }
    case 'closed':
    case 'sessionClosed':
    case 'dropEnded':
      return { kind: 'late', section: main.code }
    case 'conditionCredits':
      return { kind: 'load', section: main.code }
    case 'full':
    case 'reserved':
      return { kind: refusal.code, section: refusal.section }
    case 'notForYou':
      return { kind: 'restriction', section: refusal.section }
    case 'permission':
      return { kind: 'consent', section: refusal.section }
    default:
      return undefined
  }
}
