/** What the server answers about who is signed in. */
import type { StudentId } from '#core/ids'

export const ROLES = [
  'student',
  'programAdvisor',
  'supportAdvisor',
  'registrar',
  'instructor',
  'department'
] as const
export type Role = (typeof ROLES)[number]

export interface Who {
  id: number
  name: string
  role: Role
  student: StudentId | null
}

/** Somebody who is signed in. */
export interface SignedIn extends Who {
  /** The mark after which news is to be heard: what is read later has all that was told before. */
  news: number
}

/** Where somebody is signed in; times are the machine's. */
export interface SignedInAt {
  id: number
  browser: string
  signedInAt: number
  seenAt: number
  /** It is the browser that asks. */
  here: boolean
}
