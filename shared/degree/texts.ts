/** What is said of needs, conditions and forecasts. */
import type { Finish } from '#core/chain'
import type { ConditionResult, Forecast, MostSpec, NeedResult, NeedState, Serving } from '#core/degree'
import { averageText, count, creditsText, type TermNames } from '#shared/words'

/** How a requirement stands, while nothing is needed. */
export const NEED_STATES: Record<NeedState, string> = {
  met: 'met',
  gradesDue: 'grades due',
  underWay: 'under way',
  registered: 'registered',
  mapped: 'mapped',
  needed: 'needed'
}

/** What a target for the GPA asks of the credits still to come. */
export function forecastText(forecast: Forecast, target: number, remaining: number): string {
  switch (forecast.kind) {
    case 'reached':
      return `${target.toFixed(2)} is kept whatever the grades to come.`
    case 'possible':
      return `It takes an average of ${leastText(forecast.least)} over the ${creditsText(remaining)} still to come.`
    case 'outOfReach':
      return `Out of reach: with the best grades in the ${creditsText(remaining)} still to come it would be ${mostAverageText(forecast.best)}.`
    case 'nothingLeft':
      return 'No credits of the program are still to come.'
  }
}

/** The least average in hundredths that suffices, and the most that can be had: never rounded to where it is not so. */
const leastText = (average: number): string => (Math.ceil(average * 100 - 1e-7) / 100).toFixed(2)
const mostAverageText = (average: number): string => (Math.floor(average * 100 + 1e-7) / 100).toFixed(2)

/** Of what at most so much may count: `6 credits`, `1 course`. */
export const mostText = ({ credits, courses }: MostSpec): string =>
  courses === undefined ? creditsText(credits ?? 0) : count(courses, 'course')

/** What a condition asks for, and how far it is: `24 of 30 credits, 6 more planned`. */
export function conditionText({ spec, amounts, unknown, value }: ConditionResult): string {
  switch (spec.asks) {
    case 'credits': {
      const { earned, underWay, registered, planned } = amounts!
      const ahead = underWay + registered + planned
      const open = unknown ? `; of ${creditsText(unknown)} ahead it is not known yet` : ''
      return `${earned} earned${ahead ? ` and ${ahead} ahead` : ''}, of ${creditsText(spec.least)}${open}`
    }
    case 'average':
      return value === undefined ? 'no graded course yet' : `${averageText(value)} now${overText(spec)}`
    case 'test':
      return value === undefined ? 'no score on record' : `${value} on record`
    case 'milestone':
      return spec.note ?? 'recorded by the registrar'
  }
}

/** Over which attempts an average is taken, where it is not the usual one. */
function overText({ best, attempts }: Extract<ConditionResult['spec'], { asks: 'average' }>): string {
  const over = [
    best === undefined ? '' : `the best ${count(best, 'course')}`,
    attempts === 'all' ? 'every attempt' : ''
  ].filter(Boolean)
  return over.length ? `, over ${over.join(' of ')}` : ''
}

/** What makes a finish the earliest one. */
export function finishText(finish: Finish, termName: TermNames): string {
  switch (finish.kind) {
    case 'done':
      return 'Everything is earned or under way.'
    case 'credits':
      return `The ${creditsText(finish.credits)} still to take fill the terms until ${termName(finish.term.code)}.`
    case 'chain': {
      const links = finish.chain.map(
        (link) => `${link.course} in ${termName(link.term.code)} at the earliest`
      )
      return links.length
        ? `“${finish.need.need.title}” waits for ${links.join(', then ')}.`
        : `“${finish.need.need.title}” cannot be met before ${termName(finish.term.code)}.`
    }
    case 'never':
      return finish.need
        ? `“${finish.need.need.title}” cannot be met within the terms that are known.`
        : 'The credits still to take do not fit into the terms that are known.'
  }
}

const orList = (titles: readonly string[]) =>
  titles.length < 2 ? (titles[0] ?? '') : `${titles.slice(0, -1).join(', ')} or ${titles.at(-1)}`

/** `counts for A and B`, `counts for either A or B`, `repeats STAT 110, which you have`: what a course would do. */
export function servingText(serving: Serving): string {
  const titles = (needs: readonly NeedResult[]) => [...new Set(needs.map((one) => one.need.title))]
  switch (serving.kind) {
    case 'counts': {
      const parts = serving.places.map((place) => {
        const all = titles(place)
        return all.length > 1 ? `either ${orList(all)}` : all[0]!
      })
      return `counts for ${parts.join(' and ')}`
    }
    case 'counted':
      return serving.needs.length
        ? `already counts for ${titles(serving.needs).join(' and ')}`
        : 'is there already, and counts for nothing'
    case 'repeats':
      return `repeats ${serving.by.course}, which you have${serving.needs.length ? ` for ${titles(serving.needs).join(' and ')}` : ''}`
    case 'ifMoved':
      return `would count for ${serving.need.need.title} only if ${serving.moves.course} moves to ${serving.to.need.title}`
    case 'full':
      return `meets nothing that is still open: ${titles(serving.needs).join(', ')} is full`
    case 'nothing':
      return 'counts for none of your requirements'
  }
}
