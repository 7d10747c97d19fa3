<script setup lang="ts">
import { FULL_TIME_CREDITS, isScarce, outlook, scarceCourses, type OutlookLine } from '#core/registration'
import type { Section } from '#core/week'
import type { CourseCode } from '#core/ids'
import type { SheetLine } from '#shared/registration/responses'
import { outlookSays } from '#shared/registration/outlookTexts'

/** What the chosen lines come to if seats are as they are, and if those with few seats left are gone by then. */
const props = defineProps<{
  lines: readonly SheetLine[]
  /** Courses that are dropped first. */
  drops: ReadonlySet<CourseCode>
  opened: boolean
  /** All of it or nothing. */
  whole: boolean
  /** Something stops every line as long as it is not settled. */
  stopped: boolean
}>()
const student = useStudent()
const standing = useStanding()

const mine = computed(() => new Set(standing.heldSections.map((one) => one.code)))
const fresh = (sections: readonly Section[]) => sections.filter((one) => !mine.value.has(one.code))
const creditsOf = (sections: readonly Section[]) => sections.reduce((sum, one) => sum + one.credits, 0)
/** What is held until the run takes something for it. */
const heldOf = (course: CourseCode | null) =>
  creditsOf(standing.heldSections.filter((one) => one.course === course && !props.drops.has(one.course)))
const held = computed(() => creditsOf(standing.heldSections.filter((one) => !props.drops.has(one.course))))
/** @param gone credits of the seats that go once this one is had */
const seats = (sections: readonly Section[], isRefused: boolean, gone: number) => ({
  kind: 'seats' as const,
  credits: creditsOf(sections) - gone,
  isRefused,
  isScarce: fresh(sections).some(isScarce)
})
const each = computed(() =>
  props.lines.map(({ course, sections, givesUp, refusals, fallbacks, line }): OutlookLine => ({
    course,
    choices: [
      seats(sections ?? [], refusals.length > 0, heldOf(course) + heldOf(givesUp)),
      ...fallbacks.map((one) =>
        one.fallback.kind === 'line'
          ? {
              kind: 'line' as const,
              isRefused:
                one.refusals.length > 0 || (line?.refusals ?? []).some(({ code }) => code !== 'seatLeft')
            }
          : seats(
              one.sections,
              one.refusals.length > 0,
              one.sections[0]?.course === course ? heldOf(course) + heldOf(givesUp) : 0
            )
      )
    ]
  }))
)
/** Of all or nothing the picked sections alone are tried, and what one of them meets they all meet. */
const asked = computed(() => {
  if (!props.whole) return each.value
  const first = each.value.flatMap(({ choices }) => choices.slice(0, 1))
  const isRefused = first.some((one) => one.isRefused)
  const isAnyScarce = first.some((one) => one.kind === 'seats' && one.isScarce)
  return each.value.map(({ course, choices }): OutlookLine => ({
    course,
    choices: choices
      .slice(0, 1)
      .map((one) => (one.kind === 'seats' ? { ...one, isRefused, isScarce: isAnyScarce } : one))
  }))
})
const says = computed(() =>
  outlookSays({
    now: outlook(asked.value, held.value, false),
    later: outlook(asked.value, held.value, true),
    scarce: props.opened ? [] : scarceCourses(each.value),
    stopped: props.stopped,
    fullTime: student.view?.student.level === 'undergraduate' ? FULL_TIME_CREDITS : undefined
  })
)
</script>

<template>
  <section class="card outlook" aria-labelledby="outlook-title">
    <p>
      <strong id="outlook-title">{{ student.say('If you leave it like this') }}</strong>
      <span v-for="text in says" :key="text" class="quiet"> {{ student.say(text) }}</span>
    </p>
  </section>
</template>

<style scoped>
.outlook {
  padding: 11px 15px;
  margin-top: 12px;
}
.outlook p {
  margin: 0;
}
</style>
