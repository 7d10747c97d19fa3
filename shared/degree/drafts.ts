/** Versions of programs, and those that are being written: what the registrar's pages show of them. */
import type { ProgramKind, ProgramSpec } from '#core/degree'
import type { StudentId } from '#core/ids'
import type { Instant } from '#core/time'
import type { Effect } from '#shared/advising/effects'
import type { ExpectedProgram, WrittenProgram } from './programText'

/** Longest text of a draft, in characters. */
export const PROGRAM_TEXT_MOST = 50_000

export interface ProgramRow {
  code: string
  title: string
  kind: ProgramKind
  /** The newest first. */
  versions: { id: number; catalogYear: string; credits: number; students: number }[]
}

export interface DraftRow {
  id: number
  code: string
  catalogYear: string
  title: string
  /** The catalog year of the version that it was made from; null where it was made from nothing. */
  from: string | null
  by: string
  changedAt: Instant
  version: number
}

export interface ProgramPlans {
  programs: ProgramRow[]
  drafts: DraftRow[]
}

/** A student who follows the program in one of its versions. */
export interface Follower {
  id: StudentId
  name: string
  number: string
  catalogYear: string
}

export interface DraftPage extends DraftRow {
  text: string
  expects: ExpectedProgram
  followers: Follower[]
}

/** With what a draft is compared: what each student follows, or the version that it was made from. */
export const DRAFT_AGAINST = ['from', 'record'] as const
export type DraftAgainst = (typeof DRAFT_AGAINST)[number]

/** What a draft would make of a student's degree. */
export interface DraftEffect {
  student: StudentId
  effects: Effect[]
}

export type DraftVerdict = 'gains' | 'loses' | 'both' | 'same'

/** Whether a student gains or loses by figures that differ; courses outside the degree are neither. */
export function verdictOf(effects: readonly Effect[]): DraftVerdict {
  const told = effects.filter((one) => one.of !== 'outside the degree')
  const [loses, gains] = [told.some((one) => one.isWorse), told.some((one) => !one.isWorse)]
  if (loses) return gains ? 'both' : 'loses'
  return gains ? 'gains' : 'same'
}

/** `2025-26` → `2026-27` */
export function yearAfter(catalogYear: string): string {
  const next = Number(catalogYear.slice(0, 4)) + 1
  return `${next}-${String((next + 1) % 100).padStart(2, '0')}`
}

/** Whether both halves of a catalog year belong together. */
export const isCatalogYear = (text: string): boolean =>
  /^\d{4}-\d{2}$/.test(text) && yearAfter(`${Number(text.slice(0, 4)) - 1}-00`) === text

/** The least that a program can begin with: one area, in which everything still is to be chosen. */
export const newProgram = ({
  code,
  title,
  kind,
  catalogYear
}: Pick<ProgramSpec, 'code' | 'title' | 'kind' | 'catalogYear'>): WrittenProgram => ({
  ...{ code, title, shortTitle: title.slice(0, 40), kind, catalogYear },
  credits: 12,
  areas: [
    {
      id: 'first-area',
      title: 'First area',
      needs: [
        {
          ...{ id: 'first-need', title: '12 credits', measure: 'credits', amount: 12, credits: 12 },
          from: 'undergraduate'
        }
      ]
    }
  ]
})
