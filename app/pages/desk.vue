<script setup lang="ts">
import { dayNumber, weekdayOf } from '#core/time'
import { dayMonth, LONG_DAY_NAMES } from '#wire/when'

useHead({ title: 'Desk · Ridgeway' })
const staff = useStaff()
const college = useCollege()
const clock = useClock()
const places = useStaffPlaces()
onMounted(() => staff.load())

const WEEK_MS = 7 * 86_400_000
const rows = computed(() => staff.desk?.rows ?? [])
const groups = computed(() => ({
  asked: rows.value.filter((r) => r.reviewAskedAt !== null),
  soon: rows.value.filter(
    (r) => r.signedOffAt === null && r.opens !== null && r.opens > clock.now && r.opens - clock.now < WEEK_MS
  ),
  changed: rows.value.filter((r) => r.changedSince),
  findings: rows.value.filter((r) => r.findings > 0),
  holds: rows.value.filter((r) => r.holds > 0)
}))
type Group = keyof typeof groups.value
const shown = ref<Group | 'needing'>('needing')
const needing = computed(() =>
  rows.value.filter(
    (r) =>
      r.reviewAskedAt !== null ||
      r.waiversAsked > 0 ||
      r.changedSince ||
      r.findings > 0 ||
      r.holds > 0 ||
      !r.planned
  )
)
const list = computed(() => (shown.value === 'needing' ? needing.value : groups.value[shown.value]))
const FIGURES: { key: Group; text: string }[] = [
  { key: 'asked', text: 'asked for review' },
  { key: 'soon', text: 'open within a week, no sign-off' },
  { key: 'changed', text: 'changed since the sign-off' },
  { key: 'findings', text: 'routes with findings' },
  { key: 'holds', text: 'held from registering' }
]
const title = computed(
  () => `Your desk, ${LONG_DAY_NAMES[weekdayOf(dayNumber(college.today))]} ${dayMonth(college.today)}`
)
</script>

<template>
  <AppFrame :places="places">
    <ViewState :failure="staff.failure" :ready="staff.ready && Boolean(staff.desk)" @retry="staff.load()">
      <div class="page">
        <div class="page-head">
          <h1>{{ title }}</h1>
          <span class="push quiet">{{ college.termName(staff.desk?.term ?? '') }}</span>
        </div>
        <div class="figures">
          <button
            v-for="figure in FIGURES"
            :key="figure.key"
            class="card"
            :class="{ soon: figure.key === 'soon' && groups.soon.length }"
            :aria-pressed="shown === figure.key"
            @click="shown = shown === figure.key ? 'needing' : figure.key"
          >
            <strong class="display">{{ groups[figure.key].length }}</strong>
            <span class="quiet">{{ figure.text }}</span>
          </button>
        </div>
        <StudentTable v-if="list.length" :rows="list" :term="college.termName(staff.desk!.term)" />
        <p v-else class="card empty">
          {{
            rows.length
              ? 'Nobody here at the moment.'
              : 'No students are assigned to you. The registrar assigns them.'
          }}
        </p>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.figures {
  display: grid;
  grid-template-columns: repeat(5, minmax(0, 1fr));
  gap: 10px;
  margin-bottom: 12px;
}
.figures button {
  display: flex;
  flex-direction: column;
  text-align: left;
  padding: 8px 12px;
}
.figures strong {
  font-size: 21px;
}
.figures button[aria-pressed='true'] {
  background: var(--dusk-tint);
  border-color: var(--dusk);
}
.figures .soon {
  border-color: var(--ember);
}
.empty {
  padding: 24px;
}
@media (max-width: 720px) {
  .figures {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
</style>
