<script setup lang="ts">
import type { TermCode } from '#core/ids'

useHead({ title: 'Sections · Ridgeway' })
const staff = useStaff()
const college = useCollege()
const session = useWho()
const places = useStaffPlaces()
onMounted(() => staff.load())

const codes = computed(() => {
  const own = new Set((staff.sections ?? []).map(({ section }) => section.term))
  return (college.catalogContext?.terms ?? []).map((one) => one.code).filter((code) => own.has(code))
})
const choices = computed(() => codes.value.map((code) => ({ value: code, title: college.termName(code) })))
const chosen = ref<TermCode>()
/** The last term is the one that is worked on. */
const term = computed({ get: () => chosen.value ?? codes.value.at(-1), set: (code) => (chosen.value = code) })
const list = computed(() => (staff.sections ?? []).filter(({ section }) => section.term === term.value))
</script>

<template>
  <AppFrame :places="places">
    <ViewState :failure="staff.failure" :ready="staff.ready && Boolean(staff.sections)" @retry="staff.load()">
      <div class="page">
        <div class="page-head">
          <h1>{{ session.who?.role === 'department' ? 'Sections of your subjects' : 'Your sections' }}</h1>
          <ChoicePills v-model="term" :items="choices" />
        </div>
        <TaughtSections v-if="list.length" :sections="list" />
        <p v-else class="card empty">
          Nothing of yours is published for a term that is under way or to come.
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
