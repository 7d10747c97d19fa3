<script setup lang="ts">
/** Confirm the program and catalog year on record, or say that they are wrong and which is right. */
const student = useStudent()
const advisingChanges = useAdvisingChanges()
const { toConfirm } = storeToRefs(useStanding())
const reporting = ref<string>()
const instead = ref('')
const open = computed(() => toConfirm.value.filter((p) => p.confirmed === 'open'))

async function report(program: string) {
  if (await advisingChanges.answerProgram({ program, answer: 'wrong', instead: instead.value })) {
    reporting.value = undefined
    instead.value = ''
  }
}
</script>

<template>
  <section v-if="student.own && open.length" id="program" class="card ask" aria-labelledby="program-title">
    <h2 id="program-title">Program on record</h2>
    <div v-for="{ spec } in open" :key="spec.code" class="one">
      <p><strong>{{ spec.title }}</strong> <span class="quiet">catalog {{ spec.catalogYear }}</span></p>
      <template v-if="reporting === spec.code">
        <v-textarea
          v-model="instead"
          rows="2"
          label="Which program and catalog year is right?"
          maxlength="400"
        />
        <div class="row">
          <v-btn :disabled="instead.trim().length < 3" @click="report(spec.code)">Report it</v-btn>
          <v-text-btn @click="reporting = undefined">Cancel</v-text-btn>
        </div>
      </template>
      <div v-else class="row">
        <v-btn @click="advisingChanges.answerProgram({ program: spec.code, answer: 'confirmed' })"
          >It is right</v-btn
        >
        <v-text-btn @click="reporting = spec.code">It is wrong</v-text-btn>
      </div>
    </div>
  </section>
</template>

<style scoped>
.ask {
  padding: 12px 14px;
}
.one + .one {
  border-top: 1px solid var(--rule);
  margin-top: 10px;
}
.one p {
  margin: 6px 0;
}
.row {
  display: flex;
  align-items: center;
  gap: 14px;
  margin-top: 6px;
}
</style>
