<script setup lang="ts">
useHead({ title: 'Students · Ridgeway' })
const staff = useStaff()
const college = useCollege()
const places = useStaffPlaces()
onMounted(() => staff.load())
const text = ref('')
const climbs = ref(false)
const rows = computed(() => {
  const wanted = text.value.trim().toLowerCase()
  const all = [...(staff.desk?.rows ?? [])].sort((a, b) => (a.name < b.name ? -1 : 1))
  return wanted ? all.filter((r) => `${r.name} ${r.programs}`.toLowerCase().includes(wanted)) : all
})
</script>

<template>
  <AppFrame :places="places">
    <ViewState :failure="staff.failure" :ready="staff.ready && Boolean(staff.desk)" @retry="staff.load()">
      <div class="page">
        <div class="page-head">
          <h1>Your students</h1>
          <v-text-btn :aria-expanded="climbs" @click="climbs = !climbs">{{
            climbs ? 'Close the climb' : 'The climb of all'
          }}</v-text-btn>
          <PlanWithGroup :rows="rows" :term="staff.desk!.term" />
          <span class="push find"><v-text-field v-model="text" label="Name or program" hide-details /></span>
        </div>
        <GroupSessions />
        <LazyCohortClimb v-if="climbs && rows.length" :rows="rows" />
        <StudentTable v-if="rows.length" :rows="rows" :term="college.termName(staff.desk!.term)" />
        <p v-else class="card empty">No student fits “{{ text }}”.</p>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.find {
  width: 260px;
}
.empty {
  padding: 24px;
}
</style>
