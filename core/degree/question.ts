// oxlint-disable max-lines -- one builder, whose parts share the numbers of pieces and wants
/** The question without names that stands behind an audit: what is taken, what asks for it, and what may count where. */
import { subjectOf, type Catalog, type Course } from '../catalog'
import { STATUS_ORDER, type Attempt, type Attempts } from './attempt'
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
import { fit, isLeft } from './fit'
import {
  couldTake,
  isChoice,
  isLimited,
  type MostSpec,
  type Need,
  type Program,
  type RequirementSpec
} from './program'

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
  options: QuestionOptions = {}
): Question {
  return new QuestionBuilder(programs, attempts, catalog, options).build()
}

/** Needs of one program that a course counts toward once: its areas that share nothing, or one that shares. */
interface Layer {
  program: number
  areas: ReadonlySet<string>
}

/** Numbers needs, courses and areas, and says each rule of the programs of these numbers. */
class QuestionBuilder {
  private readonly all: readonly { need: Need; program: number }[]
  private readonly layers: readonly Layer[]
  /** The number of each program's first need. */
  private readonly firstOf: readonly number[]
  private readonly numberOf: ReadonlyMap<string, number>
  private readonly unit: number
  private readonly pieces: Piece[] = []
  /** By attempt and layer. */
  private readonly pieceOf = new Map<string, number>()
  private readonly groups = new Map<string, number>()
  /** By group, what is taken; made when first asked for. */
  private there: Map<string, Attempt[]> | undefined

  constructor(
    private readonly programs: readonly Program[],
    private readonly attempts: readonly Attempt[],
    private readonly catalog: Catalog,
    private readonly options: QuestionOptions
  ) {
    this.unit = unitOf(programs, attempts)
    this.all = programs.flatMap((program, i) => program.needs.map((need) => ({ need, program: i })))
    this.numberOf = new Map(this.all.map(({ need, program }, w) => [`${program} ${need.id}`, w]))
    this.layers = programs.flatMap((program, i) => layersOf(program).map((areas) => ({ program: i, areas })))
    this.firstOf = programs.map((_, i) => this.all.findIndex((one) => one.program === i))
  }

  build(): Question {
    this.addPieces()
    const wants = this.all.map((_, w) => this.wantOf(w))
    const shares = [...this.sharesOfAreas(), ...this.sharesOfPrograms()]
    const problem: Problem = { wants, pieces: this.pieces, caps: this.caps(), shares }
    const trees = this.programs.map((program, i) =>
      this.alternativeOf(
        program.spec.areas.flatMap((area) => area.needs),
        i
      )
    )
    const root = {
      wants: trees.flatMap((tree) => tree.wants),
      choices: trees.flatMap((tree) => tree.choices)
    }
    return { problem, root, all: this.all, demands: () => this.demands() }
  }

  private units(credits: number): number {
    return Math.round(credits / this.unit)
  }

  /** Each course once for each layer in which something takes it. */
  private addPieces(): void {
    const subjects = new Map<string, number>()
    const spare = new Set(this.options.attempts?.spare.map((one) => one.key))
    this.attempts.forEach((attempt, t) => {
      const course = this.catalog.maybeCourse(attempt.course)
      if (!course || attempt.twice) return
      const status = isPossible(attempt) ? POSSIBLE : STATUS_ORDER.indexOf(attempt.status)
      const standsIn = attempt.again || spare.has(attempt.key)
      this.layers.forEach((layer, l) => {
        const wants = this.takersIn(layer, course, attempt)
        if (!wants.length) return
        const subject = subjectOf(attempt.course)
        if (!subjects.has(subject)) subjects.set(subject, subjects.size)
        this.pieceOf.set(`${t} ${l}`, this.pieces.length)
        this.pieces.push({
          course: t,
          weight: this.units(attempt.credits),
          status,
          subject: subjects.get(subject)!,
          ...(standsIn && status !== POSSIBLE && { spare: true }),
          wants
        })
      })
    })
  }

  private takersIn(layer: Layer, course: Course, attempt: Attempt): number[] {
    const { pin, scarce } = this.options
    const program = this.programs[layer.program]!
    const pinned = pin && attempt.key === pin.attempt && program.spec.code === pin.program
    return couldTake(program, course, attempt).flatMap((n) => {
      const need = program.needs[n]!
      const w = this.firstOf[layer.program]! + n
      if (!layer.areas.has(need.area) || (pinned && need.id !== pin.need)) return []
      // What is earned of it counts itself, where its grade is enough.
      const isLeftFor = () => isLeft(need, course, this.thereOf(course), this.catalog)
      if (isPossible(attempt) && !(scarce?.has(w) && isLeftFor())) return []
      return fit(need, attempt, this.catalog) === 'fits' ? [w] : []
    })
  }

  /** What is taken of a course or of its equivalents. */
  private thereOf({ code }: Course): readonly Attempt[] {
    if (!this.there) {
      this.there = new Map()
      for (const one of this.attempts) {
        if (isPossible(one)) continue
        const group = this.catalog.groupOf(one.course)
        this.there.set(group, [...(this.there.get(group) ?? []), one])
      }
    }
    return this.there.get(this.catalog.groupOf(code)) ?? []
  }

  private piecesOf(has: (course: Course, attempt: Attempt) => boolean): Set<number> {
    return new Set(
      this.pieces.flatMap((piece, p) => {
        const attempt = this.attempts[piece.course]!
        const course = this.catalog.maybeCourse(attempt.course)
        return course && has(course, attempt) ? [p] : []
      })
    )
  }

  private wantsOf(program: number, areas: ReadonlySet<string>): Set<number> {
    return new Set(
      this.all.flatMap((one, w) => (one.program === program && areas.has(one.need.area) ? [w] : []))
    )
  }

  private wantOf(w: number): Problem['wants'][number] {
    const { need, program } = this.all[w]!
    const amount = (own: number) => (need.measure === 'courses' ? own : this.units(own))
    const area = this.programs[program]!.spec.areas.find((one) => one.id === need.area)
    return {
      amount: need.waived ? 0 : amount(need.amount),
      byCourse: need.measure === 'courses',
      subjects: need.waived ? 0 : (need.subjects ?? 0),
      leftover: area?.free === true,
      endless: !this.options.scarce?.has(w),
      including: [
        ...(need.waived ? [] : need.including).map((part) => ({
          least: amount(part.amount),
          pieces: this.piecesOf((course, attempt) => part.set.has(course, attempt))
        })),
        ...this.pinnedIn(w)
      ]
    }
  }

  /** What is pinned is a part that its need has to include. */
  private pinnedIn(w: number): Problem['wants'][number]['including'] {
    const { pin } = this.options
    const { need, program } = this.all[w]!
    if (!pin || pin.need !== need.id || this.programs[program]!.spec.code !== pin.program) return []
    const own = new Set(
      this.pieces.flatMap((piece, p) => (this.attempts[piece.course]!.key === pin.attempt ? [p] : []))
    )
    const first = [...own].find((p) => this.pieces[p]!.wants.includes(w))
    if (first === undefined) return []
    return [{ least: need.measure === 'courses' ? 1 : this.pieces[first]!.weight, pieces: own }]
  }

  private caps(): Cap[] {
    const caps: Cap[] = []
    this.all.forEach(({ need }, w) => {
      for (const { set, ...most } of need.atMost)
        caps.push({
          ...this.mostOf(most),
          pieces: this.piecesOf((course, attempt) => set.has(course, attempt)),
          wants: new Set([w])
        })
      if (need.perSubject !== undefined && !need.waived) caps.push(...this.subjectCaps(w, need.perSubject))
    })
    this.programs.forEach((program, i) => {
      for (const limit of program.limits)
        caps.push({
          ...this.mostOf(limit),
          pieces: this.piecesOf((course, attempt) => isLimited(limit, course, attempt)),
          wants: this.wantsOf(i, new Set(limit.areas))
        })
    })
    return [...caps, ...this.apartCaps()]
  }

  private mostOf({ credits, courses }: MostSpec): Pick<Cap, 'most' | 'each'> {
    return courses === undefined ? { most: this.units(credits!) } : { most: courses, each: true }
  }

  /** Where a need could take more courses of one subject than it may. */
  private subjectCaps(w: number, most: number): Cap[] {
    const bySubject = new Map<number, Set<number>>()
    this.pieces.forEach(({ subject, wants }, p) => {
      if (!wants.includes(w)) return
      const own = bySubject.get(subject) ?? new Set()
      bySubject.set(subject, own.add(p))
    })
    return [...bySubject.values()]
      .filter((pieces) => pieces.size > most)
      .map((pieces) => ({ most, each: true, pieces, wants: new Set([w]) }))
  }

  /** Attempts of which only one counts: in each layer, or anywhere. */
  private apartCaps(): Cap[] {
    const numbers = new Map(this.attempts.map((attempt, t) => [attempt.key, t]))
    const anywhere = new Set(this.all.map((_, w) => w))
    return (this.options.attempts?.apart ?? []).flatMap(({ keys, why }) => {
      const [one, other] = keys.map((key) => numbers.get(key))
      if (one === undefined || other === undefined) return []
      const pairs = this.layers.flatMap((_, l) =>
        this.layers.flatMap((_, k) => {
          const [a, b] = [this.pieceOf.get(`${one} ${l}`), this.pieceOf.get(`${other} ${k}`)]
          return a === undefined || b === undefined || (why === 'again' && l !== k) ? [] : [[a, b] as const]
        })
      )
      return pairs.map((pair) => ({ most: 1, each: true, pieces: new Set(pair), wants: anywhere }))
    })
  }

  /** A course and its repeat are one, unless each gives credit. */
  private groupNumber(attempt: Attempt): number {
    const repeatable = this.catalog.maybeCourse(attempt.course)?.repeatable
    const name = repeatable ? attempt.key : this.catalog.groupOf(attempt.course)
    if (!this.groups.has(name)) this.groups.set(name, this.groups.size)
    return this.groups.get(name)!
  }

  /** What the conditions ask of what counts. */
  private demands(): Demand[] {
    return this.programs.flatMap((program, i) =>
      program.conditions.flatMap(({ spec, set, waived }): Demand[] => {
        if (spec.asks !== 'credits' || !spec.counting || waived) return []
        const own = this.piecesOf(
          (course, attempt) =>
            !isPossible(attempt) && set.surely(course, attempt) && (!spec.here || attempt.origin === 'here')
        )
        const groupOf = (p: number) => this.groupNumber(this.attempts[this.pieces[p]!.course]!)
        const courses = new Map([...own].map((p) => [p, groupOf(p)]))
        return [{ least: this.units(spec.least), pieces: courses, wants: this.wantsOf(i, areasOf(program)) }]
      })
    )
  }

  private alternativeOf(requirements: readonly RequirementSpec[], program: number): Alternative {
    const own: number[] = []
    const choices: Alternative['choices'][number][] = []
    for (const one of requirements) {
      if (isChoice(one))
        choices.push({
          least: one.choose,
          of: one.of.map((branch) => this.alternativeOf(branch.needs, program))
        })
      else own.push(this.numberOf.get(`${program} ${one.id}`)!)
    }
    return { wants: own, choices }
  }

  /** An area that shares, shares with the areas it names, and with others of its program nothing. */
  private sharesOfAreas(): Share[] {
    return this.layers.flatMap((layer, l) => {
      const { program } = layer
      const { areas } = this.programs[program]!.spec
      const area = areas.find((one) => one.shares && layer.areas.has(one.id))
      if (!area?.shares) return []
      const own = { layers: [l], wants: this.wantsOf(program, layer.areas) }
      const others = this.layersOf(program).filter((k) => k !== l)
      const against = (ids: ReadonlySet<string>) => ({ layers: others, wants: this.wantsOf(program, ids) })
      const partners = new Set(area.shares.with)
      // Of two areas that share, one has to name the other.
      const strangers = areas.filter(
        ({ id, shares }) => id !== area.id && !partners.has(id) && !shares?.with.includes(area.id)
      )
      return [
        ...this.shareBetween(own, against(partners), this.units(area.shares.credits)),
        ...this.shareBetween(own, against(new Set(strangers.map(({ id }) => id))), 0)
      ]
    })
  }

  /** A further program shares with the first one, over all their areas together. */
  private sharesOfPrograms(): Share[] {
    const whole = (program: number) => ({
      layers: this.layersOf(program),
      wants: this.wantsOf(program, areasOf(this.programs[program]!))
    })
    return this.programs.flatMap(({ spec }, program) =>
      program === 0 || spec.mayShare === undefined
        ? []
        : this.shareBetween(whole(program), whole(0), this.units(spec.mayShare))
    )
  }

  private layersOf(program: number): number[] {
    return this.layers.flatMap((layer, l) => (layer.program === program ? [l] : []))
  }

  /** Courses that count both in wants of the one side and in wants of the other: none where there are no such. */
  private shareBetween(one: Side, other: Side, most: number): Share[] {
    const inSide = (t: number, { layers, wants }: Side) =>
      layers
        .flatMap((l) => this.pieceOf.get(`${t} ${l}`) ?? [])
        .filter((p) => this.pieces[p]!.wants.some((w) => wants.has(w)))
    const pairs = this.courseGroups().flatMap((group) => {
      const pair = {
        one: group.flatMap((t) => inSide(t, one)),
        other: group.flatMap((t) => inSide(t, other))
      }
      return pair.one.length && pair.other.length ? [pair] : []
    })
    return pairs.length ? [{ most, pairs, oneSide: one.wants, otherSide: other.wants }] : []
  }

  private courseGroups(): number[][] {
    const groups = new Map<number, number[]>()
    this.attempts.forEach((attempt, t) => {
      const number = this.groupNumber(attempt)
      groups.set(number, [...(groups.get(number) ?? []), t])
    })
    return [...groups.values()]
  }
}

/** Wants, with the layers that their pieces are in. */
interface Side {
  layers: readonly number[]
  wants: ReadonlySet<number>
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
      ...program.limits.map((limit) => limit.credits ?? 0),
      ...program.spec.areas.map((area) => area.shares?.credits ?? 0),
      ...program.needs.flatMap((need) => [
        need.amount,
        ...need.including.map((part) => part.amount),
        ...need.atMost.map((part) => part.credits ?? 0)
      ])
    ])
  ].map((credits) => Math.round(credits * 100))
  const common = (a: number, b: number): number => (b === 0 ? a : common(b, a % b))
  return (hundredths.reduce(common, 0) || 100) / 100
}
