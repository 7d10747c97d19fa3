<script setup lang="ts">
import { suggestedTerms } from '#shared/degree/programSheet'
import { areaHues, areaKey } from '~/ui/useHues'
import { creditsText } from '#shared/words'

/** The bare program on one sheet, by term and by area: nothing of the student's record is on it. */
useHead({ title: 'The program · Ridgeway' })
const student = useStudent()
const college = useCollege()
const audits = computed(() => student.reading!.audits)
const chosen = ref(0)
const audit = computed(() => audits.value[chosen.value]!)
const spec = computed(() => audit.value.program.spec)
const hues = computed(() => areaHues(audits.value))

const hueOf = (area: string) => hues.value.get(areaKey(audit.value, area))!.hue
const terms = computed(() =>
  college.catalogContext ? suggestedTerms(audit.value.program, college.catalogContext.catalog) : []
)
const print = () => window.print()
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ spec.title }}</h1>
      <span class="pill">catalog {{ spec.catalogYear }}</span>
      <span class="pill">{{ creditsText(spec.credits) }}</span>
      <label v-if="audits.length > 1" class="no-print">
        Program
        <v-select
          v-model="chosen"
          :items="audits.map((one, value) => ({ value, title: one.program.spec.title }))"
        />
      </label>
      <v-btn class="push no-print" @click="print">Print</v-btn>
      <NuxtLink class="textlink no-print" :to="`/students/${student.view!.student.id}/degree`"
        >Back to the degree</NuxtLink
      >
    </div>
    <p v-if="spec.note">{{ spec.note }}</p>
    <div class="sheet">
      <section class="card" aria-labelledby="by-area">
        <h2 id="by-area">By area</h2>
        <ProgramAreas :spec="spec" :hue-of="hueOf" />
      </section>
      <section class="card" aria-labelledby="by-term">
        <h2 id="by-term">By term</h2>
        <ProgramTerms :terms="terms" :hue-of="hueOf" />
      </section>
    </div>
  </div>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 14px;
  align-items: start;
}
.card {
  padding: 12px 14px;
}
@media (max-width: 900px) {
  .sheet {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .card {
    border: 0;
    padding: 0;
  }
}
</style>
