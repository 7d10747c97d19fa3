<script setup lang="ts">
import { courseCode } from '#core/ids'
import type { SignForm } from '#shared/help/texts'

/** A sign as the places draw it. */
const props = defineProps<{ form: SignForm }>()
const attempt = computed(() => {
  const { form } = props
  const base = { course: courseCode('ENVI 310'), credits: 4, grade: null, placedByOffice: false }
  const here = { ...base, origin: 'here' as const }
  if (form === 'earned') return { ...here, status: 'earned' as const, detail: 'plain' as const, grade: 'B+' }
  if (form === 'underWay' || form === 'registered') return { ...here, status: form, detail: 'plain' as const }
  const detail = form === 'picked' || form === 'waitlisted' ? form : ('plain' as const)
  return { ...here, status: 'planned' as const, detail }
})
</script>

<template>
  <span aria-hidden="true">
    <span v-if="form === 'needed'" class="needed">4 credits needed</span>
    <CourseChip v-else :attempt="attempt" :hue="0" :run="0.6" :finding="form === 'corner'" />
  </span>
</template>

<style scoped>
.needed {
  display: inline-block;
  border: 1px dotted var(--quiet);
  border-radius: 6px;
  padding: 1px 9px;
  color: var(--quiet);
}
</style>
