import type { Obstacle } from '#core/route'
import { AWAY_WORDS, ruleText } from '#wire/words'

/** Why a course may not go into a term, in the few words that fit a cell. */
export function obstacleText(obstacle: Obstacle, termName: string): string {
  switch (obstacle.code) {
    case 'past':
      return `${termName} has begun or is over.`
    case 'away':
      return `${termName} is marked as ${AWAY_WORDS[obstacle.why]}.`
    case 'notOffered':
      return obstacle.known === 'sections'
        ? `No section in ${termName}.`
        : `Does not usually run in ${termName}.`
    case 'prerequisite':
      return `Needs ${ruleText(obstacle.missing)} before ${termName}.`
    case 'corequisite':
      return `Needs ${ruleText(obstacle.missing)}.`
  }
}
