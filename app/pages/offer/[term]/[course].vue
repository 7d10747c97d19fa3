<script setup lang="ts">
import { termCode, type SectionCode } from '#core/ids'
import type { OfferedCourse } from '#shared/sections/offering'
import { count } from '#shared/words'

/** A course's sections in a term, for those who plan them: seats, hours, another one, none any more. */
useHead({ title: 'Offer · Ridgeway' })
const staff = useStaff()
const college = useCollege()
const places = useStaffPlaces()
const route = useRoute()
onMounted(() => staff.load())

const term = computed(() => termCode(String(route.params.term)))
const code = computed(() => String(route.params.course).replace('-', ' '))
const {
  known: offered,
  failure,
  read: readOffered
} = useRead(() => api<OfferedCourse>(`/api/terms/${term.value}/courses/${String(route.params.course)}`))
const read = followed(readOffered, ({ kind }) => kind === 'seats' || kind === 'term')
watch([term, code], read, { immediate: true })

const title = computed(() => college.catalogContext?.catalog.maybeCourse(code.value)?.title ?? '')
const mains = computed(() => (offered.value?.sections ?? []).filter((one) => one.parent === null))
const partsOf = (main: SectionCode) => (offered.value?.sections ?? []).filter((one) => one.parent === main)
const left = computed(() => mains.value.reduce((sum, one) => sum + Math.max(0, one.capacity - one.taken), 0))
const said = computed(() => {
  const wanting = offered.value?.wanting ?? 0
  const short = Math.max(0, wanting - left.value)
  return `${count(wanting, 'student')} want it and hold no seat · ${count(left.value, 'seat')} free${
    short ? ` · short of ${short}` : ''
  }`
})
</script>

<template>
  <AppFrame :places="places">
    <ViewState
      :failure="staff.failure ?? failure"
      :ready="staff.ready && Boolean(offered)"
      @retry="(staff.load(), read())"
    >
      <div class="page">
        <div class="page-head">
          <h1>{{ code }} in {{ college.termName(term) }}</h1>
          <span class="quiet">{{ title }}</span>
          <NuxtLink class="textlink push" to="/demand">Back to the demand</NuxtLink>
        </div>
        <p role="status">{{ said }}</p>
        <div class="columns">
          <div class="sections">
            <OfferedSection
              v-for="main in mains"
              :key="main.code"
              :section="main"
              :offered="offered!"
              @done="read"
            >
              <OfferedSection
                v-for="one in partsOf(main.code)"
                :key="one.code"
                :section="one"
                :offered="offered!"
                part
                @done="read"
              />
            </OfferedSection>
            <p v-if="!mains.length" class="card empty">
              {{ code }} has no section in {{ college.termName(term) }} yet.
            </p>
          </div>
          <AddSection :offered="offered!" :term="term" :course="code" @done="read" />
        </div>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 420px);
  gap: 14px;
  align-items: start;
}
.sections {
  display: grid;
  gap: 12px;
}
.empty {
  padding: 20px;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
