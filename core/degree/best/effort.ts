/** How much has been tried, against a common limit. */
export interface Effort {
  steps: number
  most: number
}

/** Thrown where the limit of steps is reached; caught where the search was started. */
export class OutOfSteps extends Error {}

export function step(effort: Effort): void {
  if (++effort.steps > effort.most) throw new OutOfSteps('the limit of steps is reached')
}
