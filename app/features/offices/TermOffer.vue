<script setup lang="ts">
import type { TermCode } from '#core/ids'
import type { OfferCopied, TermRow } from '#shared/offices/terms'
import { count } from '#shared/words'

/** The offer of a term: what is there, and that of an earlier term, looked at before it is copied. */
const props = defineProps<{ row: TermRow }>()
const terms = useTerms()
const notice = useNotice()
const { busy, problem, attempt } = useAttempt()

/** Terms with sections before this one, those of the same season first, the latest first. */
const earlier = computed(() =>
  (terms.rows ?? [])
    .filter((one) => one.start < props.row.start && one.sections)
    .toReversed()
    .sort((a, b) => Number(b.season === props.row.season) - Number(a.season === props.row.season))
)
const from = ref<TermCode>()
watch(earlier, (list) => (from.value ??= list[0]?.code), { immediate: true })
const seen = shallowRef<OfferCopied>()
watch(from, () => (seen.value = undefined))
const look = () => attempt(async () => (seen.value = await terms.lookAtCopy(props.row.code, from.value!)))
const copy = () =>
  attempt(async () => {
    const { sections, courses } = await terms.copyOffer(props.row.code, from.value!)
    seen.value = undefined
    notice.say(`${count(sections, 'section')} of ${count(courses, 'course')} copied.`)
  })
const college = useCollege()
const courses = computed(() =>
  (college.view?.courses ?? []).map(({ code, title }) => ({ value: code, title: `${code} ${title}` }))
)
const open = (code: string | null) => {
  if (code) void navigateTo(offerPage(props.row.code, code))
}
const sectionRows = useSectionRows()
const offers = useOffers()
const save = () =>
  attempt(async () => {
    const term = college.catalogContext!.terms.find((one) => one.code === props.row.code)!
    await offers.load(term, college.zone)
    saveTable(
      `offer-${term.code}.csv`,
      offers.byTerm
        .get(term.code)!
        .sections.flatMap((one) =>
          sectionRows(one, { Seats: one.capacity, Taken: one.taken, Line: one.waiting })
        )
    )
  })
const left = (why: 'offered' | 'pattern') => (seen.value?.left ?? []).filter((one) => one.why === why)
const names = (list: readonly { course: string }[]) =>
  list
    .slice(0, 8)
    .map((one) => one.course)
    .join(', ') + (list.length > 8 ? ` and ${list.length - 8} more` : '')
</script>

<template>
  <section aria-labelledby="offer-title">
    <h2 id="offer-title">Offer</h2>
    <p v-if="row.sections">
      {{ count(row.sections, 'section') }} of {{ count(row.courses, 'course') }}.
      <NuxtLink class="textlink" to="/demand">What is wanted, course by course</NuxtLink>
      <v-text-btn v-if="row.published" :disabled="busy" @click="save">Save as a table (CSV)</v-text-btn>
    </p>
    <p v-else class="quiet">No sections yet.</p>
    <v-autocomplete
      class="course"
      label="sections of a course, by its code or title"
      :items="courses"
      :model-value="null"
      @update:model-value="open"
    />
    <form v-if="earlier.length" @submit.prevent="seen ? copy() : look()">
      <v-select
        v-model="from"
        label="copy the offer of"
        :items="
          earlier.map((one) => ({ value: one.code, title: `${one.name}, ${count(one.sections, 'section')}` }))
        "
      />
      <div v-if="seen" role="status">
        <p>
          {{ count(seen.sections, 'section') }} of {{ count(seen.courses, 'course') }} would be made, at the
          same hours, in the same rooms, with the same instructors.
        </p>
        <p v-if="left('pattern').length" class="quiet">
          Left out, since not offered in this year: {{ names(left('pattern')) }}.
        </p>
        <p v-if="left('offered').length" class="quiet">
          Left out, since they have sections already: {{ names(left('offered')) }}.
        </p>
      </div>
      <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
      <v-btn type="submit" :disabled="busy || !from || (seen && !seen.sections)">{{
        seen ? `Copy ${count(seen.sections, 'section')}` : 'Look at it'
      }}</v-btn>
    </form>
  </section>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
  justify-items: start;
}
form .v-input,
.course {
  width: 100%;
}
.course {
  margin-bottom: 12px;
}
p {
  margin: 2px 0 6px;
}
</style>
