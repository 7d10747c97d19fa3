/** MariaDB error 1451: a row of another table refers to it. */
export const isReferenced = (error: unknown): boolean =>
  [error, (error as { cause?: unknown }).cause].some(
    (one) => (one as { errno?: number } | undefined)?.errno === 1451
  )
