<script setup lang="ts">
/** The term, large; a switch when more than one is published ahead. */
const student = useStudent()
const college = useCollege()
</script>

<template>
  <span class="switch">
    <h1>{{ student.coming?.name }}</h1>
    <template v-if="college.openTerms.length > 1">
      <button
        v-for="t in college.openTerms.filter((t) => t.code !== student.coming?.code)"
        :key="t.code"
        class="pill no-print"
        @click="student.chosen = t.code"
      >
        go to {{ t.name }}
      </button>
    </template>
  </span>
</template>

<style scoped>
.switch {
  display: flex;
  align-items: center;
  gap: 12px;
}
</style>
