<script setup lang="ts">
import type { ExceptionGrant } from '#core/degree'
import { shortDay } from '#shared/when'

/** An exception that stands: by whom and why; whoever may, withdraws it here. */
defineProps<{ grant: ExceptionGrant; text: string; of: string }>()
const student = useStudent()
const advisingChanges = useAdvisingChanges()
const college = useCollege()
</script>

<template>
  <p>
    <strong>{{ text }}</strong> by {{ grant.by }}, {{ shortDay(grant.at, college.zone) }}: “{{
      grant.reason
    }}”
    <v-text-btn
      v-if="student.mayGrant"
      class="no-print"
      :aria-label="`Withdraw: ${of}, ${text}`"
      @click="advisingChanges.withdrawException(grant.id)"
    >
      Withdraw
    </v-text-btn>
  </p>
</template>
