/** What the registration decision asks, with nothing in the way but what a test says. */
import type { Catalog, Term } from '../catalog'
import type { RegistrationFacts } from '../registration'

/** Facts of a student of whom nothing is known, at the opening of a term. */
export function factsIn(
  about: { catalog: Catalog; terms: readonly Term[]; term: Term },
  over: Partial<RegistrationFacts> = {}
): RegistrationFacts {
  const ends = Date.parse('2027-09-11T04:00:00Z')
  const opens = Date.parse('2027-04-12T11:00:00Z')
  return {
    ...about,
    now: opens,
    opens,
    closes: ends,
    drop: { freeUntil: ends, ends: Date.parse('2027-11-20T05:00:00Z') },
    sessions: new Map(),
    student: { standing: 'junior', programs: ['ENVD'], tests: {}, graded: [] },
    holds: [],
    record: [],
    held: [],
    heldSections: [],
    exchanging: new Set(),
    givingUp: new Map(),
    block: null,
    holidays: new Set(),
    loadMost: 18,
    repeatBelow: 'C',
    signOff: { policy: 'none', given: null, changed: false },
    agreed: true,
    permissions: new Map(),
    onlyWith: new Map(),
    componentsOf: () => [],
    ...over
  }
}
