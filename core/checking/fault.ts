/** Faults of catalogs and programs as data; the path says where, the sentence is made elsewhere. */
import type { CourseCode } from '../ids'

interface At {
  path: string
}

export type Fault = At &
  (
    | { code: 'rule'; problem: string; rule: string; at: number }
    | { code: 'program'; problem: string }
    | { code: 'unknownCourse'; course: CourseCode; rule: string }
    | { code: 'courseTwice'; course: CourseCode }
    | { code: 'creditRange'; least: number; most: number }
    | { code: 'circle'; problem: string }
    /** The catalog cannot give what is asked for, in the need's own measure. */
    | {
        code: 'outOfReach'
        asks: number
        most: number
        measure: 'courses' | 'credits' | 'subjects'
        rule: string
      }
    /** Courses fit, and none of them is offered any more. */
    | { code: 'notOffered'; rule: string }
  )
