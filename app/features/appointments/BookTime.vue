<script setup lang="ts">
import type { OfferedSlot } from '#core/appointments'
import { dayNumber, weekdayOf } from '#core/time'
import { classesBetween, type Section } from '#core/week'
import type { FreeTimes } from '#shared/appointments/appointments'
import { clockTime, dayMonth, LONG_DAY_NAMES } from '#shared/when'

/** Times of an advisor that are free, day by day; one is chosen. */
const props = defineProps<{
  advisor: number
  /** Books the chosen one. @returns whether it went through */
  book: (slot: OfferedSlot, about: string | null) => Promise<boolean>
  /** What the button says. */
  act: string
  /** An appointment is moved: what it is about stays. */
  isMoved?: boolean
}>()
const emit = defineEmits<{ close: [] }>()
const student = useStudent()
const college = useCollege()
const slots = shallowRef<OfferedSlot[]>()
const failure = ref<string>()
const chosen = shallowRef<OfferedSlot>()
const about = ref('')
const { busy, once } = useOnce()

async function load(): Promise<void> {
  failure.value = undefined
  try {
    const { id } = student.view!.student
    slots.value = (await api<FreeTimes>(`/api/students/${id}/advisors/${props.advisor}/times`)).slots
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    failure.value = error.message
  }
}
watch(
  () => props.advisor,
  () => {
    chosen.value = undefined
    void load()
  },
  { immediate: true }
)

/** Classes of the student at hours of a slot: told, since only they know whether one can be missed. */
const held = computed((): Section[] => {
  const codes = new Set((student.view?.held ?? []).flatMap((one) => [one.section, ...one.components]))
  return (student.view?.sections ?? []).filter((one) => codes.has(one.code))
})
const holidays = computed(
  () =>
    new Set(
      (college.catalogContext?.terms ?? []).flatMap((term) => term.holidays.map((one) => dayNumber(one.date)))
    )
)
function during({ date, start, end }: OfferedSlot): string | undefined {
  const day = dayNumber(date)
  const classes = classesBetween(held.value, day, day, holidays.value)
  return classes.find(({ meeting }) => meeting.start < end && start < meeting.end)?.section.course
}
const days = computed(() =>
  [...new Set((slots.value ?? []).map((one) => one.date))].map((date) => ({
    date,
    title: `${LONG_DAY_NAMES[weekdayOf(dayNumber(date))]} ${dayMonth(date)}`,
    slots: slots.value!.filter((one) => one.date === date)
  }))
)
const all = ref(false)
const DAYS = 4
const shown = computed(() => (all.value ? days.value : days.value.slice(0, DAYS)))

async function send() {
  const slot = chosen.value
  if (!slot || busy.value) return
  if (await once(() => props.book(slot, about.value.trim() || null))) return emit('close')
  // Somebody may have been faster.
  chosen.value = undefined
  await load()
}
</script>

<template>
  <form class="book" @submit.prevent="send" @keydown.esc.stop="emit('close')">
    <p v-if="failure" role="alert">
      {{ failure }} <v-text-btn type="button" @click="load">Try again</v-text-btn>
    </p>
    <p v-else-if="!slots" class="quiet" role="status">Looking for free times.</p>
    <p v-else-if="!slots.length" role="status">
      No time is offered in the next six weeks. Write in the talk, or see the hours on Today.
    </p>
    <div v-for="day in shown" :key="day.date" class="day">
      <strong>{{ day.title }}</strong>
      <span class="slots">
        <v-btn
          v-for="slot in day.slots"
          :key="slot.start"
          size="small"
          :variant="slot === chosen ? 'flat' : 'outlined'"
          :color="slot === chosen ? 'primary' : undefined"
          :aria-pressed="slot === chosen"
          :aria-label="`${day.title}, ${clockTime(slot.start)}${during(slot) ? `, during ${during(slot)}` : ''}`"
          @click="chosen = slot"
          >{{ clockTime(slot.start)
          }}<span v-if="during(slot)" class="during">during {{ during(slot) }}</span></v-btn
        >
      </span>
    </div>
    <v-text-btn v-if="!all && days.length > DAYS" type="button" @click="all = true">Later days</v-text-btn>
    <template v-if="chosen">
      <p>{{ clockTime(chosen.start) }} to {{ clockTime(chosen.end) }}, {{ chosen.place }}</p>
      <v-text-field v-if="!isMoved" v-model="about" label="what it is about (if you like)" maxlength="400" />
    </template>
    <div class="acts">
      <v-btn type="submit" size="small" :disabled="!chosen || busy">{{ act }}</v-btn>
      <v-text-btn type="button" @click="emit('close')">Cancel</v-text-btn>
    </div>
  </form>
</template>

<style scoped>
.book {
  display: grid;
  gap: 7px;
  margin: 6px 0;
}
p {
  margin: 0;
}
.day {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  gap: 4px 10px;
  align-items: baseline;
}
.slots,
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
}
.during {
  margin-left: 6px;
  font-weight: 400;
}
@media (max-width: 520px) {
  .day {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
