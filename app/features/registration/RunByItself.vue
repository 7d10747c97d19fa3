<script setup lang="ts">
import type { Instant } from '#core/time'
import { shortInstant } from '#shared/when'

/** Whether the sheet is left to run by itself at the opening. */
defineProps<{ opens: Instant; armed: boolean }>()
const emit = defineEmits<{ arm: [armed: boolean] }>()
const student = useStudent()
const college = useCollege()
</script>

<template>
  <p v-if="armed || student.own" class="itself" :class="{ armed }">
    <!-- One button, so that the focus stays where it was pressed. -->
    <v-btn v-if="student.own" size="small" @click="emit('arm', !armed)">{{
      armed ? 'Do not run it for me' : 'Run it for me at the opening'
    }}</v-btn>
    <span v-if="armed" role="status"
      ><strong>{{ student.say('This sheet runs by itself') }}</strong>
      {{
        student.say(
          `on ${shortInstant(opens, college.zone)}, as it stands here then, and what came of it is mailed to you.`
        )
      }}</span
    >
    <span v-else class="quiet"
      >You need not be there. Sheets that run by themselves are taken in an order drawn by lot at the opening;
      who registers by hand may be before or after.</span
    >
  </p>
</template>

<style scoped>
.itself {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  margin: 0 0 10px;
}
.armed {
  background: var(--dusk-tint);
  border-radius: 8px;
  padding: 6px 12px;
}
</style>
