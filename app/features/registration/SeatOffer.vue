<script setup lang="ts">
import { clashesWith, type Section } from '#core/week'
import type { CourseCode } from '#core/ids'
import type { SeatOffer } from '#shared/record/responses'
import { countdown, instantText } from '#shared/when'
import { sectionHours, sectionName } from '#shared/week/texts'

/** A seat that is held for the student: the clock, the week before and after, and the answer. */
const props = defineProps<{ offer: SeatOffer; busy: boolean }>()
const emit = defineEmits<{ answer: [given: 'accept' | 'decline', givingUp: CourseCode[]] }>()
const student = useStudent()
const college = useCollege()
const standing = useStanding()
const clock = useClock()
const { hueOf } = useHues()

const hue = (course: string) => hueOf(course).hue
const sections = computed(() => {
  const codes = new Set<string>(props.offer.sections)
  return (student.view?.sections ?? []).filter((one) => codes.has(one.code))
})
const now = computed(() => standing.heldSections)
const replaced = computed(() =>
  now.value.filter((one) => one.course === props.offer.course && !props.offer.sections.includes(one.code))
)
const others = computed(() => now.value.filter((one) => one.course !== props.offer.course))
/** Courses that meet at the same time: the seat can be had for them. */
const against = computed(() => [
  ...new Set(
    clashesWith(
      { course: props.offer.course, sections: sections.value },
      others.value,
      standing.holidays
    ).map((clash) => clash.with.course)
  )
])
const after = computed(() => [
  ...others.value.filter((one) => !against.value.includes(one.course)),
  ...sections.value
])
const SCALE = { from: 8 * 60, to: 18 * 60 }
const creditsOf = (list: readonly Section[]) => list.reduce((sum, one) => sum + one.credits, 0)
const title = computed(() => sections.value.map(sectionName).join(' + '))
</script>

<template>
  <section class="card offer" :aria-label="`A seat in ${offer.course} is held for you`">
    <div class="clock">
      <strong class="head">{{ student.say('A seat is held for you') }}</strong>
      <p class="big display" role="timer">{{ countdown(offer.until - clock.now) }}</p>
      <p>answer by {{ instantText(offer.until, college.zone) }}</p>
    </div>
    <div class="what">
      <p>
        <strong>{{ title }}</strong>
        <span v-for="one in sections" :key="one.code" class="quiet"> · {{ sectionHours(one) }}</span>
      </p>
      <div class="weeks">
        <figure>
          <SmallWeek :sections="now" :hue-of="hue" :scale="SCALE" />
          <figcaption class="quiet">now, {{ creditsOf(now) }} credits</figcaption>
        </figure>
        <span aria-hidden="true" class="arrow">→</span>
        <figure>
          <SmallWeek :sections="after" :hue-of="hue" :scale="SCALE" />
          <figcaption class="quiet">after, {{ creditsOf(after) }} credits</figcaption>
        </figure>
        <p class="says">
          <template v-if="replaced.length"
            >Replaces {{ replaced.map(sectionName).join(' + ') }} in one step.
          </template>
          <template v-if="against.length"
            >It meets at the same time as {{ against.join(', ') }}, which {{ student.say('you') }} would give
            up in the same step.</template
          >
          <template v-else>Nothing clashes.</template>
        </p>
      </div>
    </div>
    <div v-if="student.own" class="keys">
      <v-btn variant="flat" color="primary" :disabled="busy" @click="emit('answer', 'accept', against)">{{
        against.length ? `Accept, give up ${against.join(', ')}` : 'Accept the seat'
      }}</v-btn>
      <v-btn :disabled="busy" @click="emit('answer', 'decline', [])">Decline</v-btn>
      <p class="quiet small">Without an answer the seat goes to the next in line.</p>
    </div>
  </section>
</template>

<style scoped>
.offer {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) 190px;
  gap: 12px 26px;
  margin-top: 12px;
  padding: 12px 16px;
  border: 2px solid var(--ember);
}
.offer p {
  margin: 0;
}
.head {
  color: var(--ember);
}
.big {
  font-size: 27px;
  font-weight: 650;
}
.weeks {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  margin-top: 6px;
}
.weeks figure {
  margin: 0;
}
.weeks figcaption {
  font-size: 12.5px;
}
.arrow {
  color: var(--ember);
}
.says {
  flex: 1 1 180px;
}
.keys {
  display: flex;
  flex-direction: column;
  gap: 7px;
}
@media (max-width: 900px) {
  .offer {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
