import { FREE_HUE, OUTSIDE_HUE } from '~/theme/tokens'
import type { Audit } from '#core/degree'

const HUES = 8

export interface AreaHue {
  hue: number
  /** More areas than hues: the hue repeats with a double edge. */
  doubled: boolean
}

/** One hue for each area, the same on every screen: by program order, free choice apart. */
export function areaHues(audits: readonly Audit[]): Map<string, AreaHue> {
  const found = new Map<string, AreaHue>()
  let next = 0
  for (const audit of audits) {
    for (const { area } of audit.areas) {
      const key = areaKey(audit, area.id)
      if (area.free) found.set(key, { hue: FREE_HUE, doubled: false })
      else {
        found.set(key, { hue: next % HUES, doubled: next >= HUES })
        next++
      }
    }
  }
  return found
}

export function areaKey(audit: Audit, area: string): string {
  return `${audit.program.spec.code}/${area}`
}

export function useHues() {
  const student = useStudent()
  const hues = computed(() => areaHues(student.reading?.audits ?? []))

  /** The hue of a course: of the first area in which it counts. */
  const courseHues = computed(() => {
    const found = new Map<string, AreaHue>()
    for (const audit of student.reading?.audits ?? []) {
      for (const area of audit.areas) {
        for (const need of area.needs) {
          for (const attempt of need.evidence) {
            if (!found.has(attempt.course))
              found.set(attempt.course, hues.value.get(areaKey(audit, area.area.id))!)
          }
        }
      }
    }
    return found
  })
  const hueOf = (course: string) => courseHues.value.get(course) ?? { hue: OUTSIDE_HUE, doubled: false }
  return { hues, hueOf }
}
