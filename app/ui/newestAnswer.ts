/** Keeps an answer from overwriting one that was asked for after it. */
export function newestAnswer() {
  let asked = 0
  let taken = 0
  return {
    /** The turn of a question that is about to be asked. */
    ask: () => ++asked,
    /** Whether the answer of a turn is to be taken. */
    take(turn: number): boolean {
      if (turn < taken) return false
      taken = turn
      return true
    }
  }
}
