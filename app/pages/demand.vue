<script setup lang="ts">
import type { TermCode } from '#core/ids'
import { shortOf, type CourseDemand, type TermNeeds } from '#shared/sections/demand'
import { deadlineText } from '#shared/when'
import { count } from '#shared/words'

useHead({ title: 'Demand · Ridgeway' })
const staff = useStaff()
const college = useCollege()
const clock = useClock()
const places = useStaffPlaces()
onMounted(() => staff.load())

/** Terms to come; a summer is looked at where it is asked for. */
const terms = computed(() =>
  (college.catalogContext?.terms ?? []).filter((one) => one.start > college.today).slice(0, 5)
)
const items = computed(() => terms.value.map((one) => ({ value: one.code, title: one.name })))
const chosen = ref<TermCode>()
const term = computed({
  get: () => chosen.value ?? (terms.value.find((one) => one.season !== 'summer') ?? terms.value[0])?.code,
  set: (code) => (chosen.value = code)
})
const { known: rows, failure, read } = useRead(() => api<CourseDemand[]>(`/api/terms/${term.value!}/demand`))
/** From the audits and checks of all who plan something: it takes longer, and nobody waits for it. */
const asked = useRead(async () => {
  const code = term.value!
  return { code, known: await api<TermNeeds>(`/api/terms/${code}/demand/needs`) }
})
const readSoFar = computed(() =>
  asked.known.value?.code === term.value ? asked.known.value?.known : undefined
)
const isWhole = computed(() => readSoFar.value !== undefined && readSoFar.value.read >= readSoFar.value.of)
const needs = computed(() => (isWhole.value ? readSoFar.value!.courses : undefined))
// Each answer is as far as the server got; the next one gets further.
watch(asked.known, (now, before) => {
  const isFurther = before?.code !== now?.code || (now?.known.read ?? 0) > (before?.known.read ?? 0)
  if (!isWhole.value && isFurther) void asked.read()
})
watch(term, (code) => code && (read(), asked.read()), { immediate: true })
const short = computed(() => (rows.value ?? []).reduce((sum, one) => sum + shortOf(one), 0))
const session = useWho()
const mayPlace = computed(
  () => session.who?.role === 'registrar' && terms.value.find((one) => one.code === term.value)?.published
)
const due = computed(() => terms.value.find((one) => one.code === term.value)?.intentionsDueAt)
</script>

<template>
  <AppFrame :places="places">
    <ViewState
      :failure="staff.failure ?? failure"
      :ready="staff.ready && Boolean(rows)"
      @retry="(staff.load(), term && read())"
    >
      <div class="page">
        <div class="page-head">
          <h1>Demand</h1>
          <ChoicePills v-model="term" :items="items" />
          <NuxtLink v-if="mayPlace" class="textlink push" :to="`/terms/${term}/placing`"
            >Place students</NuxtLink
          >
          <span class="quiet">{{ short ? `short of ${count(short, 'seat')}` : 'seats for everybody' }}</span>
        </div>
        <p v-if="due" class="quiet">
          What students mean to take {{ due > clock.minute ? 'is' : 'was' }} handed in until
          {{ deadlineText(due, college.zone) }}.
        </p>
        <p v-if="asked.failure.value" class="stops" role="alert">{{ asked.failure.value }}</p>
        <v-progress-linear
          v-if="readSoFar && !isWhole"
          :model-value="(100 * readSoFar.read) / readSoFar.of"
          :aria-label="`Who cannot wait: ${readSoFar.read} of ${count(readSoFar.of, 'student')} read`"
        />
        <LeftWithout v-if="needs?.some((one) => one.left || one.mayBeLeft)" :needs="needs" :term="term!" />
        <DemandTable v-if="rows?.length" :rows="rows" :needs="needs" :term="term!" />
        <p v-else class="card empty">
          Nobody has planned anything for this term, and it has no sections yet.
        </p>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.empty {
  padding: 24px;
}
</style>
