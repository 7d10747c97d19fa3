<script setup lang="ts">
/** The frame of a part of what the college is: its heading, what is in it, and what saves it. */
defineProps<{ title: string; about: string; isChanged: boolean; busy: boolean; problem: string }>()
defineEmits<{ save: []; reset: [] }>()
const heading = useId()
</script>

<template>
  <form class="card part" novalidate :aria-labelledby="heading" @submit.prevent="$emit('save')">
    <h2 :id="heading">{{ title }}</h2>
    <p class="quiet">{{ about }}</p>
    <slot />
    <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
    <div class="acts">
      <v-btn type="submit" variant="flat" color="primary" :disabled="busy || !isChanged">Save</v-btn>
      <v-btn v-if="isChanged" :disabled="busy" @click="$emit('reset')">Discard</v-btn>
    </div>
  </form>
</template>

<style scoped>
.part {
  display: grid;
  gap: 10px;
  padding: 14px 16px;
}
.part > p,
.part > h2 {
  margin: 0;
}
.acts {
  display: flex;
  gap: 10px;
}
.part :deep(.v-input) {
  width: 100%;
  min-width: 0;
  max-width: none;
}
.part :deep(.row) {
  display: grid;
  gap: 8px;
  align-items: center;
}
@media (max-width: 720px) {
  .part :deep(.heads) {
    display: none;
  }
}
</style>
