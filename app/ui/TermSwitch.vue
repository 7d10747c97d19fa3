<script setup lang="ts">
/** The term at work, large; a switch when more than one is alive. */
const student = useStudent()
const others = computed(() => student.alive.filter((one) => one.term.code !== student.coming?.code))
</script>

<template>
  <span class="switch">
    <h1>{{ student.coming?.name }}</h1>
    <v-bare-btn
      v-for="{ term } in others"
      :key="term.code"
      class="pill no-print"
      @click="student.chooseTerm(term.code)"
    >
      go to {{ term.name }}
    </v-bare-btn>
  </span>
</template>

<style scoped>
.switch {
  display: flex;
  align-items: center;
  gap: 12px;
}
</style>
