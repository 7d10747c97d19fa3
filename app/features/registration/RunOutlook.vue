<script setup lang="ts">
import { FULL_TIME_CREDITS, isScarce, outlook, scarceCourses, type OutlookLine } from '#core/registration'
import type { Section } from '#core/week'
import type { SheetLine } from '#shared/registration/responses'
import { outlookSays } from '#shared/registration/outlookTexts'

/** What the chosen lines come to if seats are as they are, and if those with few seats left are gone by then. */
const props = defineProps<{ lines: readonly SheetLine[]; held: number; opened: boolean }>()
const student = useStudent()
const standing = useStanding()

const mine = computed(() => new Set(standing.heldSections.map((one) => one.code)))
const fresh = (sections: readonly Section[]) => sections.filter((one) => !mine.value.has(one.code))
const seats = (sections: readonly Section[], isRefused: boolean) => ({
  kind: 'seats' as const,
  credits: sections.reduce((sum, one) => sum + one.credits, 0),
  isRefused,
  isScarce: fresh(sections).some(isScarce)
})
const asked = computed(() =>
  props.lines.map(({ course, sections, refusals, fallbacks, line }): OutlookLine => ({
    course,
    choices: [
      seats(sections ?? [], refusals.length > 0),
      ...fallbacks.map((one) =>
        one.fallback.kind === 'line'
          ? {
              kind: 'line' as const,
              isRefused: (line?.refusals ?? []).some(({ code }) => code !== 'seatLeft')
            }
          : seats(one.sections, one.refusals.length > 0)
      )
    ]
  }))
)
const says = computed(() =>
  outlookSays({
    now: outlook(asked.value, props.held, false),
    later: outlook(asked.value, props.held, true),
    scarce: props.opened ? [] : scarceCourses(asked.value),
    fullTime: student.picture?.student.level === 'undergraduate' ? FULL_TIME_CREDITS : undefined
  })
)
</script>

<template>
  <section class="card outlook" aria-labelledby="outlook-title">
    <p>
      <strong id="outlook-title">{{ student.say('If you leave it like this') }}</strong>
      <span v-for="text in says" :key="text" class="quiet"> {{ text }}</span>
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
