/** A bare program as it stands on a sheet, by area and by term: nothing of anybody's record is on it. */
import type { Catalog } from '#core/catalog'
import { isChoice, type NeedSpec, type Program, type RequirementSpec, type SlotSpec } from '#core/degree'
import { count, creditsText } from '#shared/words'
import { mostText } from './texts'

export interface NeedLine {
  need: NeedSpec
  /** The branch it belongs to. */
  under: string
}

/** The needs of a tree one below the other. */
export const needLines = (requirements: readonly RequirementSpec[], under = ''): NeedLine[] =>
  requirements.flatMap((one) =>
    isChoice(one)
      ? one.of.flatMap((branch) =>
          needLines(branch.needs, `${one.title}, ${one.choose} of ${one.of.length}: ${branch.title}`)
        )
      : [{ need: one, under }]
  )

/** `2 courses, 6 cr`, `12 credits` */
export const needAmount = (need: NeedSpec): string =>
  need.measure === 'credits'
    ? creditsText(need.amount)
    : `${count(need.amount, 'course')}, ${need.credits} cr`

/** From which courses, with which grade, and what else is asked of them. A named list stands by its title, with what is on it. */
export function needRule(
  need: NeedSpec,
  lists: readonly { name: string; title: string; from: string }[]
): string {
  const written = (text: string) =>
    text.replace(/\blist ([a-z0-9-]+)/g, (whole, name: string) => {
      const list = lists.find((one) => one.name === name)
      return list ? `${list.title} (${list.from})` : whole
    })
  return [
    written(need.from),
    ...(need.leastGrade ? [`${need.leastGrade} or better`] : []),
    ...(need.subjects ? [`from ${count(need.subjects, 'subject')} at least`] : []),
    ...(need.including ?? []).map((part) => `${part.amount} of them from ${written(part.from)}`),
    ...(need.perSubject === undefined ? [] : [`at most ${count(need.perSubject, 'course')} of one subject`]),
    ...(need.atMost ?? []).map((part) => `at most ${mostText(part)} from ${written(part.from)}`)
  ].join('; ')
}

/** A place of a suggested term. */
export interface SheetSlot {
  text: string
  title: string
  /** Not known of a choice that is measured in credits. */
  credits: number | undefined
  /** Where it counts: in the area of its need, or of the first need that takes the course. */
  area: string | undefined
}

/** Term after term as the program suggests. */
export function suggestedTerms(program: Program, catalog: Catalog): SheetSlot[][] {
  const slot = (one: SlotSpec): SheetSlot => {
    const course = typeof one === 'string' ? catalog.maybeCourse(one) : undefined
    const need = program.needs.find((need) =>
      typeof one === 'string' ? course !== undefined && need.set.has(course) : need.id === one.need
    )
    return {
      text: typeof one === 'string' ? one : (need?.title ?? ''),
      title: course?.title ?? '',
      credits: course?.credits ?? (need?.measure === 'courses' ? need.credits / need.amount : undefined),
      area: need?.area
    }
  }
  return (program.spec.suggested ?? []).map((slots) => slots.map(slot))
}

/** `15 credits`, `12 credits and what is chosen` */
export function slotsCredits(slots: readonly SheetSlot[]): string {
  const known = slots.reduce((sum, one) => sum + (one.credits ?? 0), 0)
  const isWhole = slots.every((one) => one.credits !== undefined)
  return `${creditsText(known)}${isWhole ? '' : ' and what is chosen'}`
}
