<script setup lang="ts">
import { dayNumber, weekdayOf } from '#core/time'
import {
  DESK_ORDER,
  DESK_REASONS,
  DESK_SHORT,
  DESK_WORDS,
  deskReasons,
  inOrderOfNeed,
  rowsOf,
  type DeskReason,
  type DeskView
} from '#shared/advising/desk'
import { campusDate, dayMonth, instantText, LONG_DAY_NAMES } from '#shared/when'
import { STANDING_WORDS } from '#shared/words'

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
  rows.value.filter((row) => reasons.value.get(row.id)!.some((one) => one.reason === reason))
/** Of those that apply to nobody, the usual ones are told as well. */
const USUAL = new Set<DeskReason>(['soon', 'asked', 'words', 'holds'])
const figures = computed(() =>
  DESK_REASONS.map((reason) => ({ reason, count: withReason(reason).length })).filter(
    ({ reason, count }) => count > 0 || USUAL.has(reason)
  )
)
const view = ref<DeskView>({ reason: null, program: null, standing: null })
const list = computed(() => rowsOf(view.value, rows.value, clock.minute))
const ordered = computed(() => inOrderOfNeed(list.value, clock.minute))
function saveRows() {
  const lines = ordered.value.map((row) => ({
    Student: row.name,
    Programs: row.programs,
    Standing: STANDING_WORDS[row.standing],
    Reasons: reasons.value
      .get(row.id)!
      .map((one) => DESK_SHORT[one.reason])
      .join('; '),
    'Review asked': row.reviews.map((one) => college.termName(one.term)).join('; '),
    'Signed off': row.signedOffAt === null ? '' : campusDate(row.signedOffAt, college.zone),
    'May register from': row.opens === null ? '' : instantText(row.opens, college.zone),
    'Courses planned': row.planned,
    Findings: row.findings,
    Holds: row.holds,
    'Credits needed': row.needed
  }))
  const name = `desk-${college.today}${view.value.reason ? `-${view.value.reason}` : ''}.csv`
  saveTable(name, lines)
}
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
            :aria-pressed="view.reason === one.reason"
            @click="view = { ...view, reason: view.reason === one.reason ? null : one.reason }"
          >
            <strong class="display">{{ one.count }}</strong>
            <span class="quiet">{{ DESK_WORDS[one.reason] }}</span>
          </v-bare-btn>
        </div>
        <DeskViews v-model="view" :rows="rows" :kept="staff.desk!.views" />
        <p class="order quiet small">
          {{ DESK_ORDER }} A column’s head sorts by it.
          <v-text-btn v-if="list.length" @click="saveRows">Save as a table (CSV)</v-text-btn>
          <WriteToMany :rows="ordered" :term="staff.desk!.term" />
          <HandOver :rows="ordered" />
        </p>
        <StudentTable v-if="list.length" :rows="ordered" :term="college.termName(staff.desk!.term)" />
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
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 10px;
}
.figures button {
  display: flex;
  align-items: baseline;
  gap: 7px;
  padding: 4px 12px;
}
.figures strong {
  font-size: 18px;
}
.figures button[aria-pressed='true'] {
  background: var(--dusk-tint);
  border-color: var(--dusk);
}
.figures .soon {
  border-color: var(--ember);
}
.order {
  margin: 0 0 8px;
}
.empty {
  padding: 24px;
}
</style>
