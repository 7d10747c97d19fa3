<script setup lang="ts">
import { HOW_ANSWERED } from '#shared/howAnswered'

/** What an answer was asked over, how answers are compared and what is proved of it, in the words of the documentation. */
const props = defineProps<{ answer: keyof typeof HOW_ANSWERED }>()
const how = computed(() => HOW_ANSWERED[props.answer])
</script>

<template>
  <v-menu location="bottom end" :close-on-content-click="false" max-width="460">
    <template #activator="{ props: opener }">
      <v-btn v-bind="opener" class="no-print" variant="text" size="small">{{ how.title }}</v-btn>
    </template>
    <v-card class="how" role="note">
      <p>{{ how.over }}</p>
      <component :is="answer === 'weeks' ? 'ul' : 'ol'">
        <li v-for="step in how.order" :key="step">{{ step }}</li>
      </component>
      <p class="quiet">{{ how.proved }}</p>
    </v-card>
  </v-menu>
</template>

<style scoped>
.how {
  padding: 12px 16px;
  font-size: 0.875rem;
  border: 1px solid var(--rule);
}
.how p {
  margin: 0;
}
.how :is(ol, ul) {
  margin: 8px 0;
  padding-left: 20px;
}
</style>
