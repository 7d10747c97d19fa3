<script setup lang="ts">
import { sectionName } from '#shared/week/texts'
import type { ActedSection } from './useSectionActs'

/** Beside a section on a course's page: that it is held, or to register it at once. */
defineProps<{ section: ActedSection; held: boolean; may: boolean }>()
const emit = defineEmits<{ register: [] }>()
</script>

<template>
  <span v-if="held" class="quiet">registered</span>
  <v-text-btn v-else-if="may" @click="emit('register')"
    >Register<span class="visually-hidden"> {{ sectionName(section.main) }}</span></v-text-btn
  >
</template>
