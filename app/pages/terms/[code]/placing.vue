<script setup lang="ts">
import { termCode } from '#core/ids'
import { filledSections, leftCourses, placingSummary } from '#shared/offices/placing'
import { count } from '#shared/words'

/** Placing many students at once: from what they handed in, by block, or those of an opening. */
useHead({ title: 'Place students · Ridgeway' })
const staff = useStaff()
const college = useCollege()
const places = useStaffPlaces()
const code = termCode(String(useRoute().params.code))
const {
  groups,
  failure,
  read,
  said,
  proposed,
  sections,
  outcomes,
  leftOut,
  progress,
  problem,
  toPlace,
  unseen,
  propose,
  place,
  stop
} = usePlacingStudents(code)
onMounted(() => (staff.load(), read()))
const name = computed(() => college.catalogContext?.terms.find((one) => one.code === code)?.name ?? code)
const busy = computed(() => progress.value !== undefined)
const shown = computed(() => proposed.value.filter((one) => one.placed.length || one.left.length))
const filled = computed(() =>
  filledSections(
    [...sections.value.values()],
    proposed.value.filter((one) => !leftOut.value.has(one.student))
  )
)
const summary = computed(() =>
  [
    placingSummary(proposed.value),
    unseen.value ? `${count(unseen.value, 'student')} of the group not looked at.` : ''
  ]
    .filter(Boolean)
    .join(' ')
)
/** What came of it so far; those who were refused a part of it are told where they stand. */
const placedText = computed(() => {
  const through = [...outcomes.value.values()].filter(isThrough).length
  const others = outcomes.value.size - through
  return outcomes.value.size
    ? ` ${through} placed${others ? `, ${others} not as proposed: see the outcome of each` : ''}.`
    : ''
})
const DOING = { proposing: 'looked at', placing: 'placed' }
</script>

<template>
  <AppFrame :places="places">
    <ViewState
      :failure="staff.failure ?? failure"
      :ready="staff.ready && Boolean(groups)"
      @retry="(staff.load(), read())"
    >
      <div v-if="groups" class="page">
        <div class="page-head">
          <h1>Place students</h1>
          <span class="quiet">{{ name }}</span>
          <NuxtLink class="textlink push" :to="`/terms/${code}`">{{ name }}, its dates and offer</NuxtLink>
        </div>
        <PlacingForm :groups="groups" :busy="busy" @propose="propose" />
        <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
        <div v-if="progress" class="under-way">
          <v-progress-linear
            :model-value="(100 * progress.done) / Math.max(1, progress.of)"
            :aria-label="`${progress.done} of ${count(progress.of, 'student')} ${DOING[progress.doing]}`"
          />
          <span class="quiet small"
            >{{ progress.done }} of {{ count(progress.of, 'student') }} {{ DOING[progress.doing] }}</span
          >
          <v-btn @click="stop">Stop</v-btn>
        </div>
        <template v-if="said && !(progress?.doing === 'proposing')">
          <div class="found">
            <p role="status">{{ summary }}{{ placedText }}</p>
            <v-btn v-if="toPlace.length" variant="flat" color="primary" :disabled="busy" @click="place"
              >Place {{ count(toPlace.length, 'student') }}</v-btn
            >
          </div>
          <div v-if="shown.length" class="effects">
            <PlacingSeats v-if="filled.length" :sections="filled" :term="code" />
            <PlacingLeft :courses="leftCourses(proposed, college.zone)" :term="code" />
          </div>
          <PlacingTable
            v-if="shown.length"
            v-model:left-out="leftOut"
            :rows="shown"
            :outcomes="outcomes"
            :busy="busy"
          />
        </template>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.under-way,
.found {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  margin: 12px 0;
}
.effects {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(340px, 1fr));
  gap: 14px;
  align-items: start;
  margin-bottom: 14px;
}
.under-way .v-progress-linear {
  flex: 1 1 240px;
}
.found p {
  margin: 0;
  flex: 1 1 320px;
}
</style>
