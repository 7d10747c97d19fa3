/**
 * From programs and takings to the question of the best reading, and back.
 *
 * The needs of a program lie in one layer, where a course counts once; an area that shares lies in a
 * layer of its own, and each further program in others. A course is a piece in every layer that
 * takes it. Credits become whole numbers of the smallest unit that occurs.
 */
import { subjectOf, type Catalog, type Course } from '../catalog'
import { solve, type Alternative, type Cap, type Piece, type Problem, type Reading, type Share } from './best'
import {
  couldTake,
  isChoice,
  isLimited,
  takes,
  type Need,
  type Program,
  type RequirementSpec
} from './program'
import { FIRMNESS, type Taking } from './taking'

/**
 * Why a course counts nowhere: no need accepts it; those that would ask for a better grade; all that
 * accept it are met without it; a cap of the program keeps it out; it counts in another program, and no
 * more may be shared.
 */
export type Refused = 'notAccepted' | 'gradeTooLow' | 'full' | 'limited' | 'sharing'

/** Says that a course has to count toward a need, to see what that would cost. */
export interface Pin {
  taking: string
  program: string
  need: string
}

export interface Placement {
  /** Takings of each need, firmest first; by program, then by the need's id. */
  byNeed: readonly ReadonlyMap<string, readonly Taking[]>[]
  /** Needs of branches not chosen are not in here; by program. */
  active: readonly ReadonlySet<string>[]
  reading: Pick<Reading, 'opens' | 'waste' | 'ended' | 'bound' | 'steps'>
}

/** Whether a taking may count toward a need, and if not, whether the grade is all that is wrong. */
export function fit(need: Need, taking: Taking, catalog: Catalog): 'fits' | 'gradeTooLow' | 'notAccepted' {
  const course = catalog.maybeCourse(taking.course)
  if (!course || !takes(need, course, taking)) return 'notAccepted'
  if (need.leastGrade && taking.grade !== null && !catalog.scale.atLeast(taking.grade, need.leastGrade))
    return 'gradeTooLow'
  return 'fits'
}

export function place(
  programs: readonly Program[],
  takings: readonly Taking[],
  catalog: Catalog,
  pin?: Pin
): Placement {
  const { problem, root, all } = questionOf(programs, takings, catalog, pin)
  const reading = solve(problem, root)
  const byNeed = programs.map(
    (program) => new Map<string, Taking[]>(program.needs.map((need) => [need.id, []]))
  )
  reading.place.forEach((w, p) => {
    if (w < 0) return
    const { need, program } = all[w]!
    byNeed[program]!.get(need.id)!.push(takings[problem.pieces[p]!.course]!)
  })
  const active = programs.map(
    (_, i) =>
      new Set(all.flatMap(({ need, program }, w) => (program === i && reading.active[w] ? [need.id] : [])))
  )
  return { byNeed, active, reading }
}

interface Question {
  problem: Problem
  root: Alternative
  /** The need of each want, and its program. */
  all: readonly { need: Need; program: number }[]
}

/** The question without names that stands behind an audit. */
export function questionOf(
  programs: readonly Program[],
  takings: readonly Taking[],
  catalog: Catalog,
  pin?: Pin
): Question {
  const unit = unitOf(programs, takings)
  const units = (credits: number) => Math.round(credits / unit)
  const all = programs.flatMap((program, i) => program.needs.map((need) => ({ need, program: i })))
  const numberOf = new Map(all.map(({ need, program }, w) => [`${program} ${need.id}`, w]))
  const layers = programs.flatMap((program, i) => layersOf(program).map((areas) => ({ program: i, areas })))
  /** The number of each program's first need. */
  const firstOf = programs.map((_, i) => all.findIndex((one) => one.program === i))

  const free = programs.map(
    ({ spec }) => new Set(spec.areas.filter((area) => area.free).map((area) => area.id))
  )

  const pieces: Piece[] = []
  const pieceOf = new Map<string, number>()
  const subjects = new Map<string, number>()
  takings.forEach((taking, t) => {
    const course = catalog.maybeCourse(taking.course)
    if (!course) return
    layers.forEach((layer, l) => {
      const program = programs[layer.program]!
      const pinned = pin && taking.key === pin.taking && program.spec.code === pin.program
      const wants: number[] = []
      for (const n of couldTake(program, course, taking)) {
        const need = program.needs[n]!
        if (!layer.areas.has(need.area) || (pinned && need.id !== pin.need)) continue
        if (fit(need, taking, catalog) === 'fits') wants.push(firstOf[layer.program]! + n)
      }
      if (!wants.length) return
      const subject = subjectOf(taking.course)
      if (!subjects.has(subject)) subjects.set(subject, subjects.size)
      pieceOf.set(`${t} ${l}`, pieces.length)
      pieces.push({
        course: t,
        weight: units(taking.credits),
        firmness: FIRMNESS.indexOf(taking.firmness),
        subject: subjects.get(subject)!,
        wants
      })
    })
  })
  const within = (has: (course: Course, taking: Taking) => boolean) =>
    new Set(
      pieces.flatMap((piece, p) => {
        const taking = takings[piece.course]!
        const course = catalog.maybeCourse(taking.course)
        return course && has(course, taking) ? [p] : []
      })
    )
  const wantsOf = (program: number, areas: ReadonlySet<string>) =>
    new Set(all.flatMap((one, w) => (one.program === program && areas.has(one.need.area) ? [w] : [])))

  const wants = all.map(({ need, program }, w) => {
    const amount = (own: number) => (need.measure === 'courses' ? own : units(own))
    const including = (need.waived ? [] : need.including).map((part) => ({
      least: amount(part.amount),
      pieces: within((course, taking) => part.set.has(course, taking))
    }))
    if (pin && pin.need === need.id && programs[program]!.spec.code === pin.program) {
      const own = new Set(
        pieces.flatMap((piece, p) => (takings[piece.course]!.key === pin.taking ? [p] : []))
      )
      const [first] = [...own].filter((p) => pieces[p]!.wants.includes(w))
      if (first !== undefined)
        including.push({ least: need.measure === 'courses' ? 1 : pieces[first]!.weight, pieces: own })
    }
    return {
      amount: need.waived ? 0 : amount(need.amount),
      byCourse: need.measure === 'courses',
      subjects: need.waived ? 0 : (need.subjects ?? 0),
      leftover: free[program]!.has(need.area),
      including
    }
  })

  const caps: Cap[] = []
  all.forEach(({ need }, w) => {
    for (const { set, credits } of need.atMost)
      caps.push({
        most: units(credits),
        pieces: within((course, taking) => set.has(course, taking)),
        wants: new Set([w])
      })
  })
  programs.forEach((program, i) => {
    for (const limit of program.limits)
      caps.push({
        most: units(limit.credits),
        pieces: within((course, taking) => isLimited(limit, course, taking)),
        wants: wantsOf(i, new Set(limit.areas))
      })
  })
  const shares = sharesOf()
  const problem: Problem = { wants, pieces, caps, shares }
  const trees = programs.map((program, i) =>
    alternativeOf(
      program.spec.areas.flatMap((area) => area.needs),
      i
    )
  )
  const root = {
    wants: trees.flatMap((tree) => tree.wants),
    choices: trees.flatMap((tree) => tree.choices)
  }
  return { problem, root, all }

  function alternativeOf(requirements: readonly RequirementSpec[], program: number): Alternative {
    const own: number[] = []
    const choices: Alternative['choices'][number][] = []
    for (const one of requirements) {
      if (isChoice(one))
        choices.push({ least: one.choose, of: one.of.map((branch) => alternativeOf(branch.needs, program)) })
      else own.push(numberOf.get(`${program} ${one.id}`)!)
    }
    return { wants: own, choices }
  }

  /** What may be shared: between a sharing area and the rest of its program, and between programs. */
  function sharesOf(): Share[] {
    const found: Share[] = []
    const pairs = (one: number, other: number) =>
      takings.flatMap((_, t) => {
        const a = pieceOf.get(`${t} ${one}`)
        const b = pieceOf.get(`${t} ${other}`)
        return a === undefined || b === undefined ? [] : [{ one: a, other: b }]
      })
    const between = (
      one: number,
      other: number,
      most: number,
      side: ReadonlySet<number>,
      against: ReadonlySet<number>
    ) => {
      const both = pairs(one, other)
      if (both.length && side.size && against.size)
        found.push({ most, pairs: both, oneSide: side, otherSide: against })
    }
    layers.forEach((layer, l) => {
      const program = programs[layer.program]!
      const area = program.spec.areas.find((one) => one.shares && layer.areas.has(one.id))
      layers.forEach((against, k) => {
        if (area?.shares && against.program === layer.program && k !== l) {
          const partners = new Set(area.shares.with)
          const may = [...against.areas].filter((id) => partners.has(id))
          const not = [...against.areas].filter((id) => !partners.has(id))
          const own = wantsOf(layer.program, layer.areas)
          between(l, k, units(area.shares.credits), own, wantsOf(layer.program, new Set(may)))
          between(l, k, 0, own, wantsOf(layer.program, new Set(not)))
        }
        if (layer.program > 0 && against.program === 0 && program.spec.mayShare !== undefined) {
          between(
            l,
            k,
            units(program.spec.mayShare),
            wantsOf(layer.program, layer.areas),
            wantsOf(0, against.areas)
          )
        }
      })
    })
    return found
  }
}

/** The base layer of a program, then one for each area that shares. */
function layersOf(program: Program): ReadonlySet<string>[] {
  const { areas } = program.spec
  return [
    new Set(areas.filter((area) => !area.shares).map((area) => area.id)),
    ...areas.filter((area) => area.shares).map((area) => new Set([area.id]))
  ]
}

/** The largest unit of credit in which every amount is whole; credits come in hundredths at the finest. */
function unitOf(programs: readonly Program[], takings: readonly Taking[]): number {
  const hundredths = [
    ...takings.map((taking) => taking.credits),
    ...programs.flatMap((program) => [
      program.spec.mayShare ?? 0,
      ...program.limits.map((limit) => limit.credits),
      ...program.spec.areas.map((area) => area.shares?.credits ?? 0),
      ...program.needs.flatMap((need) => [
        need.amount,
        ...need.including.map((part) => part.amount),
        ...need.atMost.map((part) => part.credits)
      ])
    ])
  ].map((credits) => Math.round(credits * 100))
  const common = (a: number, b: number): number => (b === 0 ? a : common(b, a % b))
  return (hundredths.reduce(common, 0) || 100) / 100
}
