<script setup lang="ts">
import type { Course } from '#core/catalog'
import { creditsText } from '#shared/words'

/** The courses that are chosen, and the term of the route that they are put in. */
const props = defineProps<{ courses: readonly Course[]; terms: readonly { code: string; name: string }[] }>()
const emit = defineEmits<{ put: []; none: [] }>()
const target = defineModel<string>('target', { required: true })
const credits = computed(() => props.courses.reduce((sum, course) => sum + course.credits, 0))
</script>

<template>
  <div class="placing card" role="region" aria-label="Chosen courses">
    <strong>{{ courses.map((course) => course.code).join(', ') }}</strong>
    <span class="quiet">{{ creditsText(credits) }}</span>
    <label
      >Term
      <v-select v-model="target" :items="terms" item-value="code" item-title="name" />
    </label>
    <v-btn variant="flat" color="primary" @click="emit('put')">Put on the route</v-btn>
    <v-text-btn @click="emit('none')">Choose none</v-text-btn>
  </div>
</template>

<style scoped>
.placing {
  position: sticky;
  bottom: 12px;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  padding: 9px 14px;
  box-shadow: 0 6px 24px rgb(0 0 0 / 18%);
}
@media (max-width: 720px) {
  .placing {
    bottom: 66px;
  }
}
</style>
