import type { Audit } from '#core/degree'
import { hueGiver, OUTSIDE_HUE, type AreaHue } from '#shared/tokens'

/** One hue for each area, the same on every screen: by program order, free choice apart. */
export function areaHues(audits: readonly Audit[]): Map<string, AreaHue> {
  const hueOf = hueGiver()
  return new Map(
    audits.flatMap((audit) => audit.areas.map(({ area }) => [areaKey(audit, area.id), hueOf(area)] as const))
  )
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
