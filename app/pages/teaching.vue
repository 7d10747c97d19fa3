<script setup lang="ts">
useHead({ title: 'Sections · Ridgeway' })
const staff = useStaff()
const college = useCollege()
const session = useWho()
const places = useStaffPlaces()
onMounted(() => staff.load())

const codes = computed(() => {
  const own = new Set((staff.sections ?? []).map(({ section }) => section.term))
  return (college.shelf?.terms ?? []).map((one) => one.code).filter((code) => own.has(code))
})
const chosen = ref<string>()
/** The last term is the one that is worked on. */
const term = computed(() => chosen.value ?? codes.value.at(-1))
const list = computed(() => (staff.sections ?? []).filter(({ section }) => section.term === term.value))
</script>

<template>
  <AppFrame :places="places">
    <ViewState :failure="staff.failure" :ready="staff.ready && Boolean(staff.sections)" @retry="staff.load()">
      <div class="page">
        <div class="page-head">
          <h1>{{ session.who?.role === 'department' ? 'Sections of your subjects' : 'Your sections' }}</h1>
          <v-bare-btn
            v-for="code in codes"
            :key="code"
            class="pill"
            :aria-pressed="term === code"
            @click="chosen = code"
            >{{ college.termName(code) }}</v-bare-btn
          >
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
.pill[aria-pressed='true'] {
  background: var(--dusk-tint);
  border-color: var(--dusk);
}
</style>
