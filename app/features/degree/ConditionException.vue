<script setup lang="ts">
import type { ConditionResult } from '#core/degree'

/** A condition that is waived, by whom and why; whoever may, waives it here and takes that back. */
const props = defineProps<{ program: string; result: ConditionResult }>()
const student = useStudent()
const advisingChanges = useAdvisingChanges()
const granting = ref(false)
const reason = ref('')
const busy = ref(false)

const mayGrant = computed(() => student.mayGrant && props.result.status === undefined)
async function grant() {
  busy.value = true
  const { program, result } = props
  const said = { kind: 'waiver' as const, program, need: result.spec.id, reason: reason.value.trim() }
  if (await advisingChanges.grantException(said)) {
    granting.value = false
    reason.value = ''
  }
  busy.value = false
}
</script>

<template>
  <ExceptionGiven
    v-if="result.waived"
    class="exception small"
    text="Waived"
    :grant="result.waived"
    :of="result.spec.title"
  />
  <div v-else-if="mayGrant" class="exception no-print">
    <v-text-btn
      v-if="!granting"
      class="small"
      :aria-label="`Waive ${result.spec.title}`"
      @click="granting = true"
    >
      Waive it
    </v-text-btn>
    <form v-else @submit.prevent="grant()" @keydown.esc="granting = false">
      <label>Reason <v-text-field v-model="reason" maxlength="400" /></label>
      <v-btn type="submit" size="small" :disabled="reason.trim().length < 5 || busy">Waive it</v-btn>
      <v-text-btn type="button" @click="granting = false">Cancel</v-text-btn>
    </form>
  </div>
</template>

<style scoped>
.exception {
  grid-column: 2 / -1;
  margin: 0;
}
form {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
}
label {
  flex: 1 1 260px;
  display: flex;
  align-items: center;
  gap: 6px;
}
label .v-input {
  flex: 1;
}
</style>
