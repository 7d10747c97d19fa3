import { Refused } from '#server/http/problem'

/** A part of the college cannot be as it is said; the field is that of the part. */
export const refusedCollege = (field: string, message: string) =>
  new Refused(422, 'faults', `The college cannot be so: ${field} ${message}.`, [{ field, message }])
