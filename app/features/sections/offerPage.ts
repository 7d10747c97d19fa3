/** Where the sections of a course in a term are planned. */
export const offerPage = (term: string, course: string): string =>
  `/offer/${term}/${course.replace(' ', '-')}`
