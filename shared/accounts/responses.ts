/** What the server answers about who is signed in. */
import type { StudentId } from '#core/ids'

export const ROLES = [
  'student',
  'programAdvisor',
  'supportAdvisor',
  'registrar',
  'instructor',
  'department',
  'office'
] as const
export type Role = (typeof ROLES)[number]
export const STAFF_ROLES = [
  'programAdvisor',
  'supportAdvisor',
  'registrar',
  'instructor',
  'department',
  'office'
] as const

export interface Who {
  id: number
  name: string
  role: Role
  student: StudentId | null
}

/** How one may sign in here. */
export interface WaysIn {
  /** What the institution's own sign-on is called; null where there is none. */
  signOn: string | null
  passwords: boolean
}

/** Whether signing in asks for a code as well. */
export interface SecondStepView {
  /** When it was turned on, by the machine's time; null where it is off. */
  since: number | null
  /** Codes that are written down and not used yet. */
  spareLeft: number
}

/** What an app of codes is set up by. */
export interface SecondStepBegun {
  /** In base 32, to be typed. */
  secret: string
  /** The same as an address, which such apps open and read from a picture. */
  address: string
}

/** Why somebody who comes from the sign-on is not signed in. */
export const REFUSED_SIGN_ON = {
  signOnUnknown:
    'The sign-on knows you, and nobody signs in here by that name. The registrar’s office can put it right.',
  signOnRole:
    'The sign-on does not say that you have the role of your account here. The registrar’s office can put it right.',
  signOnFailed: 'Signing in did not come to its end. Try again; if it stays so, tell the registrar’s office.'
} as const
export type SignOnRefusal = keyof typeof REFUSED_SIGN_ON

/** Somebody who is signed in. */
export interface SignedIn extends Who {
  /** A second step has to be set up before anything else. */
  needsSecondStep: boolean
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

/** Somebody of the staff, as the registrar's office sees their account. */
export interface StaffAccount {
  id: number
  name: string
  signIn: string
  role: Role
  mail: string | null
  /** Invited until a password is set by the link. */
  state: 'active' | 'invited' | 'ended'
  /** Until when the link holds; null where there is none. */
  linkUntil: number | null
  /** Whom they act for: an instructor's name, a department, or an office that places holds. */
  actsFor: string | null
  /** Students whom they advise. */
  advises: number
}

export interface StaffAccounts {
  people: StaffAccount[]
  instructors: { id: number; name: string }[]
  departments: { id: number; name: string }[]
  /** That place holds. */
  offices: string[]
  students: StudentSignIns
}

/** Students who cannot sign in yet, as those that files bring. */
export interface StudentSignIns {
  without: number
  /** Of them, who have a mail address and no link that holds or is on its way. */
  unmailed: number
  /** Of them, who have no mail address. */
  mailless: number
  /** Whether links can be mailed from here. */
  canMail: boolean
}

export interface LinksMailed {
  mailed: number
  /** Who are to be mailed still. */
  left: number
}
