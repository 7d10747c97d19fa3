<script setup lang="ts">
import { lastYear } from '#shared/offices/terms'

/** All terms, year by year; the next year is made from the last. */
useHead({ title: 'Terms · Ridgeway' })
const staff = useStaff()
const terms = useTerms()
const college = useCollege()
const places = useStaffPlaces()
onMounted(() => (staff.load(), terms.load()))

// Where nothing is set up, what the college is comes first.
watchEffect(() => {
  if (terms.rows?.length === 0 && staff.failure) void navigateTo('/college')
})

/** A year of study begins with its autumn. */
const years = computed(() => {
  const found: { title: string; from: number; terms: typeof rows }[] = []
  const rows = terms.rows ?? []
  for (const row of rows) {
    const from = row.season === 'autumn' ? row.year : row.year - 1
    const last = found.at(-1)
    if (last?.from === from) last.terms = [...last.terms, row]
    else found.push({ title: `${from}–${String((from + 1) % 100).padStart(2, '0')}`, from, terms: [row] })
  }
  return found
})
const isBehind = (year: (typeof years.value)[number]) => year.terms.every((one) => one.end < college.today)
const ahead = computed(() => years.value.filter((year) => !isBehind(year)))
const behind = computed(() => years.value.filter(isBehind).toReversed())
const next = computed(() => lastYear(terms.rows ?? []))
</script>

<template>
  <AppFrame :places="places">
    <ViewState
      :failure="staff.failure ?? terms.failure"
      :ready="staff.ready && Boolean(terms.rows)"
      @retry="(staff.load(), terms.load())"
    >
      <div class="page">
        <div class="page-head">
          <h1>Terms</h1>
          <span class="quiet"
            >students plan into all that are to come; sections are seen of those that are published</span
          >
          <span class="push acts"><MakeTerms v-if="next.length" :like="next" /><NewTerm /></span>
          <NuxtLink class="textlink" to="/college">The college</NuxtLink>
          <NuxtLink class="textlink" to="/programs">Programs</NuxtLink>
          <NuxtLink class="textlink" to="/guidance">Guidance</NuxtLink>
        </div>
        <p v-if="!terms.rows?.length" class="card none">
          No term yet. A new college begins with
          <NuxtLink class="textlink" to="/college">what it is</NuxtLink>, then its first term and its courses;
          or it comes whole, <NuxtLink class="textlink" to="/files">as files</NuxtLink>.
        </p>
        <GradesDue />
        <section v-for="year in ahead" :key="year.title" :aria-label="year.title">
          <h2>{{ year.title }}</h2>
          <TermYear :terms="year.terms" />
        </section>
        <details v-if="behind.length" class="behind">
          <summary>Years that are over: {{ behind.length }}</summary>
          <section v-for="year in behind" :key="year.title" :aria-label="year.title">
            <h2>{{ year.title }}</h2>
            <TermYear :terms="year.terms" />
          </section>
        </details>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.none {
  padding: 14px 16px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
h2 {
  margin: 0 0 4px;
}
.behind summary {
  cursor: pointer;
  padding: 6px 0;
}
</style>
