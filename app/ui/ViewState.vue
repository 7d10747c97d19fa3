<script setup lang="ts">
/** What a view shows while it loads, and when it could not. */
defineProps<{ failure?: string | undefined; ready: boolean }>()
defineEmits<{ retry: [] }>()
</script>

<template>
  <div v-if="failure && !ready" class="page">
    <div class="card failed" role="alert">
      <h1>This cannot be shown at the moment</h1>
      <p>{{ failure }}</p>
      <v-btn @click="$emit('retry')">Try again</v-btn>
    </div>
  </div>
  <div v-else-if="!ready" class="page" role="progressbar" aria-busy="true" aria-label="Loading">
    <slot name="skeleton">
      <div class="skeleton" style="height: 30px; width: 260px; margin-bottom: 14px" />
      <div class="skeleton" style="height: 280px; margin-bottom: 12px" />
      <div class="skeleton" style="height: 120px" />
    </slot>
  </div>
  <template v-else>
    <div v-if="failure" class="stale" role="status">
      {{ failure }} <v-text-btn @click="$emit('retry')">Try again</v-text-btn>
    </div>
    <slot />
  </template>
</template>

<style scoped>
.failed {
  padding: 24px;
  max-width: 620px;
}
.failed p {
  margin: 8px 0 16px;
}
.stale {
  background: var(--dusk-tint);
  padding: 6px 20px;
}
</style>
