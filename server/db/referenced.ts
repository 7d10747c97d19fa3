/** What a database refuses, by its numbers. */

const isNumber = (error: unknown, errno: number): boolean =>
  [error, (error as { cause?: unknown }).cause].some(
    (one) => (one as { errno?: number } | undefined)?.errno === errno
  )

/** MariaDB error 1451: a row of another table refers to it. */
export const isReferenced = (error: unknown): boolean => isNumber(error, 1451)

/** MariaDB error 1062: there is such a row already. */
export const isTwice = (error: unknown): boolean => isNumber(error, 1062)
