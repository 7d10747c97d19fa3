/** The question without names that stands behind an audit: what is taken, what asks for it, and what may count where. */
import { subjectOf, type Catalog, type Course } from '../catalog'
import { FIRMNESS, type Attempt, type Attempts } from './attempt'
import {
  POSSIBLE,
  type Alternative,
  type Cap,
  type Demand,
  type Piece,
  type Problem,
  type Share
} from './best'
import { isPossible } from './deadEnds'
import { fit } from './fit'
import { couldTake, isChoice, isLimited, type Need, type Program, type RequirementSpec } from './program'

/** Says that a course has to count toward a need, to see what that would cost. */
export interface Pin {
  attempt: string
  program: string
  need: string
}

export interface Question {
  problem: Problem
  root: Alternative
  /** The need of each want, and its program. */
  all: readonly { need: Need; program: number }[]
  /** The conditions on what counts. */
  demands: () => Demand[]
}

export interface QuestionOptions {
  /** Which of them stand in for others, and which cannot count together. */
  attempts?: Pick<Attempts, 'spare' | 'apart'> | undefined
  pin?: Pin | undefined
  /** Wants that only what is asked about could complete; of no others it is looked into. */
  scarce?: ReadonlySet<number> | undefined
}

/** The question without names that stands behind an audit. */
export function questionOf(
  programs: readonly Program[],
  attempts: readonly Attempt[],
  catalog: Catalog,
  { attempts: list, pin, scarce }: QuestionOptions = {}
): Question {
  const unit = unitOf(programs, attempts)
  const units = (credits: number) => Math.round(credits / unit)
  const all = programs.flatMap((program, i) => program.needs.map((need) => ({ need, program: i })))
  const numberOf = new Map(all.map(({ need, program }, w) => [`${program} ${need.id}`, w]))
  const layers = programs.flatMap((program, i) => layersOf(program).map((areas) => ({ program: i, areas })))
  /** The number of each program's first need. */
  const firstOf = programs.map((_, i) => all.findIndex((one) => one.program === i))
  const spare = new Set(list?.spare.map((one) => one.key))

  const free = programs.map(
    ({ spec }) => new Set(spec.areas.filter((area) => area.free).map((area) => area.id))
  )

  const pieces: Piece[] = []
  const pieceOf = new Map<string, number>()
  const subjects = new Map<string, number>()
  attempts.forEach((attempt, t) => {
    const course = catalog.maybeCourse(attempt.course)
    if (!course) return
    const status = isPossible(attempt) ? POSSIBLE : FIRMNESS.indexOf(attempt.status)
    layers.forEach((layer, l) => {
      const program = programs[layer.program]!
      const pinned = pin && attempt.key === pin.attempt && program.spec.code === pin.program
      const wants: number[] = []
      for (const n of couldTake(program, course, attempt)) {
        const need = program.needs[n]!
        const w = firstOf[layer.program]! + n
        if (!layer.areas.has(need.area) || (pinned && need.id !== pin.need)) continue
        if (status === POSSIBLE && !scarce?.has(w)) continue
        if (fit(need, attempt, catalog) === 'fits') wants.push(w)
      }
      if (!wants.length) return
      const subject = subjectOf(attempt.course)
      if (!subjects.has(subject)) subjects.set(subject, subjects.size)
      pieceOf.set(`${t} ${l}`, pieces.length)
      const standsIn = attempt.again || spare.has(attempt.key)
      pieces.push({
        course: t,
        weight: units(attempt.credits),
        status,
        subject: subjects.get(subject)!,
        ...(standsIn && status !== POSSIBLE && { spare: true }),
        wants
      })
    })
  })
  const within = (has: (course: Course, attempt: Attempt) => boolean) =>
    new Set(
      pieces.flatMap((piece, p) => {
        const attempt = attempts[piece.course]!
        const course = catalog.maybeCourse(attempt.course)
        return course && has(course, attempt) ? [p] : []
      })
    )
  const wantsOf = (program: number, areas: ReadonlySet<string>) =>
    new Set(all.flatMap((one, w) => (one.program === program && areas.has(one.need.area) ? [w] : [])))

  const wants = all.map(({ need, program }, w) => {
    const amount = (own: number) => (need.measure === 'courses' ? own : units(own))
    const including = (need.waived ? [] : need.including).map((part) => ({
      least: amount(part.amount),
      pieces: within((course, attempt) => part.set.has(course, attempt))
    }))
    if (pin && pin.need === need.id && programs[program]!.spec.code === pin.program) {
      const own = new Set(
        pieces.flatMap((piece, p) => (attempts[piece.course]!.key === pin.attempt ? [p] : []))
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
      endless: !scarce?.has(w),
      including
    }
  })

  const groups = new Map<string, number>()
  const caps: Cap[] = []
  all.forEach(({ need }, w) => {
    for (const { set, credits } of need.atMost)
      caps.push({
        most: units(credits),
        pieces: within((course, attempt) => set.has(course, attempt)),
        wants: new Set([w])
      })
  })
  programs.forEach((program, i) => {
    for (const limit of program.limits)
      caps.push({
        most: units(limit.credits),
        pieces: within((course, attempt) => isLimited(limit, course, attempt)),
        wants: wantsOf(i, new Set(limit.areas))
      })
  })
  const shares = sharesOf()
  caps.push(...apartCaps())
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
  return { problem, root, all, demands }

  /** Attempts of which only one counts: in each layer, or anywhere. */
  function apartCaps(): Cap[] {
    const numbers = new Map(attempts.map((attempt, t) => [attempt.key, t]))
    const anywhere = new Set(all.map((_, w) => w))
    return (list?.apart ?? []).flatMap(({ keys, why }) => {
      const [one, other] = keys.map((key) => numbers.get(key))
      if (one === undefined || other === undefined) return []
      const pairs = layers.flatMap((_, l) =>
        layers.flatMap((_, k) => {
          const [a, b] = [pieceOf.get(`${one} ${l}`), pieceOf.get(`${other} ${k}`)]
          return a === undefined || b === undefined || (why === 'again' && l !== k) ? [] : [[a, b] as const]
        })
      )
      return pairs.map((pair) => ({ most: 1, each: true, pieces: new Set(pair), wants: anywhere }))
    })
  }

  /** A course and its repeat are one, unless each gives credit. */
  function groupNumber(attempt: Attempt): number {
    const repeatable = catalog.maybeCourse(attempt.course)?.repeatable
    const name = repeatable ? attempt.key : catalog.groupOf(attempt.course)
    if (!groups.has(name)) groups.set(name, groups.size)
    return groups.get(name)!
  }

  /** What the conditions ask of what counts. */
  function demands(): Demand[] {
    return programs.flatMap((program, i) =>
      program.conditions.flatMap(({ spec, set }): Demand[] => {
        if (spec.asks !== 'credits' || !spec.counting) return []
        const own = within(
          (course, attempt) =>
            !isPossible(attempt) && set.surely(course, attempt) && (!spec.here || attempt.origin === 'here')
        )
        const courses = new Map([...own].map((p) => [p, groupNumber(attempts[pieces[p]!.course]!)]))
        return [{ least: units(spec.least), pieces: courses, wants: wantsOf(i, areasOf(program)) }]
      })
    )
  }

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

  /**
   * What may be shared: by an area that shares with the areas it names, with others of its program nothing; by a
   * further program with the first one, over all their areas together.
   */
  function sharesOf(): Share[] {
    const found: Share[] = []
    /** Courses that count both in wants of these layers and in wants of those. */
    const between = (
      ones: readonly number[],
      side: ReadonlySet<number>,
      others: readonly number[],
      against: ReadonlySet<number>,
      most: number
    ) => {
      const inSome = (t: number, some: readonly number[], where: ReadonlySet<number>) =>
        some
          .flatMap((l) => pieceOf.get(`${t} ${l}`) ?? [])
          .filter((p) => pieces[p]!.wants.some((w) => where.has(w)))
      const pairs = courseGroups().flatMap((group) => {
        const one = group.flatMap((t) => inSome(t, ones, side))
        const other = group.flatMap((t) => inSome(t, others, against))
        return one.length && other.length ? [{ one, other }] : []
      })
      if (pairs.length) found.push({ most, pairs, oneSide: side, otherSide: against })
    }
    const courseGroups = (): number[][] => {
      const groups = new Map<number, number[]>()
      attempts.forEach((attempt, t) => {
        const number = groupNumber(attempt)
        groups.set(number, [...(groups.get(number) ?? []), t])
      })
      return [...groups.values()]
    }
    const layersOfProgram = (program: number) =>
      layers.flatMap((layer, l) => (layer.program === program ? [l] : []))
    layers.forEach((layer, l) => {
      const { spec } = programs[layer.program]!
      const area = spec.areas.find((one) => one.shares && layer.areas.has(one.id))
      if (!area?.shares) return
      const own = wantsOf(layer.program, layer.areas)
      const partners = new Set(area.shares.with)
      const others = layersOfProgram(layer.program).filter((k) => k !== l)
      between([l], own, others, wantsOf(layer.program, partners), units(area.shares.credits))
      // Of two areas that share, one has to name the other.
      const strangers = spec.areas.filter(
        ({ id, shares }) => id !== area.id && !partners.has(id) && !shares?.with.includes(area.id)
      )
      between([l], own, others, wantsOf(layer.program, new Set(strangers.map(({ id }) => id))), 0)
    })
    programs.forEach(({ spec }, program) => {
      if (program === 0 || spec.mayShare === undefined) return
      const whole = (index: number) => wantsOf(index, areasOf(programs[index]!))
      between(layersOfProgram(program), whole(program), layersOfProgram(0), whole(0), units(spec.mayShare))
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

const areasOf = ({ spec }: Program): ReadonlySet<string> => new Set(spec.areas.map((area) => area.id))

/** The largest unit of credit in which every amount is whole; credits come in hundredths at the finest. */
function unitOf(programs: readonly Program[], attempts: readonly Attempt[]): number {
  const hundredths = [
    ...attempts.map((attempt) => attempt.credits),
    ...programs.flatMap((program) => [
      program.spec.mayShare ?? 0,
      ...program.conditions.map(({ spec }) => (spec.asks === 'credits' ? spec.least : 0)),
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
