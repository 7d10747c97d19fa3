<script setup lang="ts">
/** What is looked at of a degree: what it asks for, or what was taken, term by term, and what another program would make of it. */
const student = useStudent()
const route = useRoute()
const base = computed(() => `/students/${student.view!.student.id}/degree`)
const views = computed(() => [
  { title: 'Requirements', to: base.value },
  { title: 'Record', to: `${base.value}/record` },
  { title: 'Compare', to: `${base.value}/compare` }
])
</script>

<template>
  <nav class="degree-views no-print" aria-label="Degree and record">
    <NuxtLink
      v-for="view in views"
      :key="view.to"
      :to="view.to"
      :aria-current="route.path === view.to ? 'page' : undefined"
      >{{ view.title }}</NuxtLink
    >
  </nav>
</template>

<style scoped>
.degree-views {
  display: flex;
  border: 1px solid var(--line);
  border-radius: 8px;
  overflow: hidden;
  background: var(--card);
}
a {
  padding: 4px 12px;
  color: var(--quiet);
  text-decoration: none;
}
a + a {
  border-left: 1px solid var(--rule);
}
a[aria-current] {
  background: var(--dusk-tint);
  color: var(--dusk);
  font-weight: 600;
}
</style>
