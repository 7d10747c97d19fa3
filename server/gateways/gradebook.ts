/**
 * The stand-in for instructors' gradebooks: a grade for each student in each section, the same every time for
 * the same seed. A college puts its own gradebook in this place.
 */

/** Grades of the common scale with how often they are given, in a hundred. */
const GIVEN: readonly [grade: string, often: number][] = [
  ['A', 18],
  ['A-', 14],
  ['B+', 16],
  ['B', 18],
  ['B-', 10],
  ['C+', 8],
  ['C', 8],
  ['C-', 3],
  ['D', 2],
  ['F', 2],
  ['W', 1]
]
/** How many shares there are in all. */
export const SHARES = GIVEN.reduce((sum, [, often]) => sum + often, 0)

/** FNV-1a of a text, 32 bits, with its bits mixed once more: near texts get far numbers. */
function hash(text: string): number {
  let value = 0x811c9dc5
  for (let i = 0; i < text.length; i++) value = Math.imul(value ^ text.charCodeAt(i), 0x01000193)
  value ^= value >>> 15
  value = Math.imul(value, 0x2c1b3c6d)
  return (value ^ (value >>> 12)) >>> 0
}

export function gradeFor(seed: number, student: number, section: string): string {
  return gradeOf(hash(`${seed} ${student} ${section}`) % SHARES)
}

/** The grade of a share, from 0 to below `SHARES`: as often as it is given. */
export function gradeOf(share: number): string {
  let left = share
  for (const [grade, often] of GIVEN) {
    left -= often
    if (left < 0) return grade
  }
  return GIVEN[0]![0]
}
