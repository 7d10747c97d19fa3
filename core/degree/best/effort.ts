/** How many states have been looked at, against a common limit. */
export interface Effort {
  steps: number
  readonly most: number
}
