/** Day letters as the trade writes them: M T W R F S U, where R is Thursday and U is Sunday. */
import { WEEKDAYS, type Weekday } from '../time/civil'

const LETTERS = 'MTWRFSU'

/** Weekdays of `MWF` or `TR`, in order of the week; undefined when a letter is unknown or repeated. */
export function parseDayLetters(text: string): Weekday[] | undefined {
  const letters = [...text.trim().toUpperCase()]
  const days = letters.map((letter) => (LETTERS.indexOf(letter) + 1) as Weekday)
  if (!days.length || days.some((day) => (day as number) === 0) || new Set(days).size !== days.length)
    return undefined
  return days.sort((a, b) => a - b)
}

export function formatDayLetters(days: readonly Weekday[]): string {
  return WEEKDAYS.filter((day) => days.includes(day))
    .map((day) => LETTERS[day - 1])
    .join('')
}
