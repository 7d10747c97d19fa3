/** The needs of programs, in one list, and the layers in which each course counts once. */
import type { Need, Program } from './program'

/** The needs of all programs, each with the number of its program, in order. */
export function wantsOfPrograms(programs: readonly Program[]): { need: Need; program: number }[] {
  return programs.flatMap((program, i) => program.needs.map((need) => ({ need, program: i })))
}

/** The base layer of a program, then one for each area that shares. */
export function layersOf(program: Program): ReadonlySet<string>[] {
  const { areas } = program.spec
  return [
    new Set(areas.filter((area) => !area.shares).map((area) => area.id)),
    ...areas.filter((area) => area.shares).map((area) => new Set([area.id]))
  ]
}
