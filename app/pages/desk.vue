<script setup lang="ts">
import { dayNumber, weekdayOf } from '#core/time'
import { DESK_REASONS, DESK_WORDS, deskReasons, type DeskReason } from '#shared/advising/desk'
import { dayMonth, LONG_DAY_NAMES } from '#shared/when'

useHead({ title: 'Desk · Ridgeway' })
const staff = useStaff()
const college = useCollege()
const clock = useClock()
const places = useStaffPlaces()
const session = useWho()
onMounted(() => staff.load())

const rows = computed(() => staff.desk?.rows ?? [])
const reasons = computed(() => new Map(rows.value.map((row) => [row.id, deskReasons(row, clock.minute)])))
const withReason = (reason: DeskReason) =>
  rows.value.filter((row) => reasons.value.get(row.id)!.includes(reason))
/** Reasons that apply to nobody are told as well; a waiver only where one is asked. */
const figures = computed(() =>
  DESK_REASONS.map((reason) => ({ reason, count: withReason(reason).length })).filter(
    ({ reason, count }) => count > 0 || (reason !== 'waivers' && reason !== 'open')
  )
)
const shown = ref<DeskReason>()
/** Without a choice, everybody for whom there is a reason; and who has planned nothing. */
const list = computed(() =>
  shown.value
    ? withReason(shown.value)
    : rows.value.filter((row) => reasons.value.get(row.id)!.length > 0 || !row.planned)
)
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
          <BulkSignOff v-if="session.who?.role === 'programAdvisor'" :rows="rows" :term="staff.desk!.term" />
        </div>
        <div class="figures">
          <v-bare-btn
            v-for="one in figures"
            :key="one.reason"
            class="card"
            :class="{ soon: (one.reason === 'soon' || one.reason === 'open') && one.count }"
            :aria-pressed="shown === one.reason"
            @click="shown = shown === one.reason ? undefined : one.reason"
          >
            <strong class="display">{{ one.count }}</strong>
            <span class="quiet">{{ DESK_WORDS[one.reason] }}</span>
          </v-bare-btn>
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
  grid-template-columns: repeat(auto-fit, minmax(140px, 1fr));
  gap: 10px;
  margin-bottom: 12px;
}
.figures button {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
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
