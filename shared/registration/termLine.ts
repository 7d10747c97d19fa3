/** The term line: what may be done in a term until when, from the opening to the last drop, as a picture draws it. */
import type { SessionDates } from '#core/registration'
import type { Cents } from '#core/charges'
import type { Instant, IsoDate } from '#core/time'
import type { TermView } from '#shared/catalog/responses'
import { moneyText } from '#shared/charges/texts'
import { dayText, deadlineText, MONTHS, shortInstant } from '#shared/when'

/** How firm a bar looks: done as often as one likes, with no trace, with a trace, or waiting. */
export type BarForm = 'full' | 'tint' | 'striped' | 'outline'

export interface LineBar {
  /** From 0 at the left end of the line to 1 at its right end. */
  from: number
  to: number
  form: BarForm
  text: string
  /** `the end of Fri 10 Sep 2027` */
  until: string
  /** `Fri 10 Sep`: the same inside a bar */
  shortUntil: string
}

export interface Lane {
  title: string
  bars: LineBar[]
  /** What holds once the last bar has ended. */
  after: string
}

export interface LineMark {
  at: number
  title: string
  text: string
}

export interface TermLine {
  lanes: Lane[]
  marks: LineMark[]
  months: { at: number; name: string }[]
  /** Where now is; undefined before and after the line. */
  now: number | undefined
}

/**
 * @param opens from when the student may register; the line begins there
 * @param owed for the term; nothing where it is paid, or not known
 * @param mark what a late drop leaves on the record, by the grade scale
 */
export function termLineOf(
  term: TermView,
  opens: Instant,
  now: Instant,
  zone: string,
  { owed = 0, mark = 'W' }: { owed?: Cents; mark?: string | undefined } = {}
): TermLine {
  const scale = new LineScale(opens, Math.max(term.dropEndsAt, opens + 1), zone)
  return {
    lanes: lanesOf(term, scale, mark),
    marks: [
      { at: 0, title: 'Opened', text: shortInstant(opens, zone) },
      {
        at: scale.at(noon(term.paymentDueOn)),
        title: owed > 0 ? `Pay ${moneyText(owed)}` : 'Payment due',
        text: `${owed > 0 ? 'by ' : ''}${shortDayText(term.paymentDueOn)}`
      },
      { at: scale.at(noon(term.start)), title: 'Classes begin', text: shortDayText(term.start) },
      { at: 1, title: 'Last drop', text: scale.short(term.dropEndsAt) }
    ],
    months: monthsBetween(scale.begin, scale.end).map(({ instant, month }) => ({
      at: scale.at(instant),
      name: MONTHS[month]!
    })),
    now: now >= scale.begin && now <= scale.end ? scale.at(now) : undefined
  }
}

/** At noon; a picture of months shows no hours. */
const noon = (day: IsoDate) => Date.parse(`${day}T12:00:00Z`)
const shortDayText = (day: IsoDate) => dayText(day).replace(/ \d{4}$/, '')

/** Where instants stand between the opening and the last drop, as a part of the line. */
class LineScale {
  constructor(
    readonly begin: Instant,
    readonly end: Instant,
    private readonly zone: string
  ) {}

  at(instant: Instant): number {
    return Math.min(1, Math.max(0, (instant - this.begin) / (this.end - this.begin)))
  }

  /** A deadline without its year. */
  short(instant: Instant): string {
    return deadlineText(instant, this.zone)
      .replace('the end of ', '')
      .replace(/ \d{4}/, '')
  }

  /** None where nothing of it is left. */
  bar(from: Instant, to: Instant, form: BarForm, text: string): LineBar[] {
    if (to <= this.begin || to <= from) return []
    return [
      {
        from: this.at(from),
        to: this.at(to),
        form,
        text,
        until: deadlineText(to, this.zone),
        shortUntil: this.short(to)
      }
    ]
  }
}

function lanesOf(term: TermView, scale: LineScale, mark: string): Lane[] {
  const { line, addEndsAt, dropFreeEndsAt, dropEndsAt } = term
  const { begin } = scale
  return [
    {
      title: 'Add, exchange',
      bars: scale.bar(begin, addEndsAt, 'full', 'while there are seats'),
      after: 'only the registrar adds'
    },
    {
      title: 'Drop',
      bars: [
        ...scale.bar(begin, dropFreeEndsAt, 'tint', 'leaves no trace on the record'),
        ...scale.bar(Math.max(begin, dropFreeEndsAt), dropEndsAt, 'striped', `leaves a ${mark}`)
      ],
      after: 'only the registrar drops'
    },
    {
      title: 'Lines',
      bars: scale.bar(
        begin,
        line.closes,
        'outline',
        line.serves === 'offer' ? `an offer stands ${line.hours} hours` : 'the first in line moves in'
      ),
      after: 'closed'
    },
    ...moneyBack(term, scale)
  ]
}

/** What of a drop is given back; nothing is said where it is not known. */
function moneyBack({ prices }: TermView, scale: LineScale): Lane[] {
  if (!prices) return []
  const { begin } = scale
  const bars = prices.refunds.flatMap(({ until, percent }, i) =>
    scale.bar(
      Math.max(begin, prices.refunds[i - 1]?.until ?? begin),
      until,
      percent === 100 ? 'full' : 'tint',
      percent === 100 ? 'all of it' : `${percent} %`
    )
  )
  return [{ title: 'Money back', bars, after: 'nothing' }]
}

/** The first of each month after the beginning, in UTC. */
function monthsBetween(begin: Instant, end: Instant): { instant: Instant; month: number }[] {
  const first = new Date(begin)
  const found = []
  for (let month = first.getUTCMonth() + 1; ; month++) {
    const instant = Date.UTC(first.getUTCFullYear(), month, 1)
    if (instant >= end) return found
    found.push({ instant, month: month % 12 })
  }
}

/** What a session of a term allows until when, where it has dates of its own. */
export function sessionText(name: string, { addEnds, freeUntil, ends }: SessionDates, zone: string): string {
  return `${name}: added until ${deadlineText(addEnds, zone)}, dropped without a trace until ${deadlineText(freeUntil, zone)}, last drop ${deadlineText(ends, zone)}.`
}
