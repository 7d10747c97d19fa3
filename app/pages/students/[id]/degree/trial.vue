<script setup lang="ts">
import { useFileDialog } from '@vueuse/core'
import type { Audit } from '#core/degree'
import { checkRoute } from '#core/route'
import { readFileText, recordFrom, type RecordContent, type ShapeFault } from '#shared/files'
import { recordFile } from '#shared/record/recordShape'
import { finishOf } from '#shared/degree/candidateQuestion'
import { programOf } from '#shared/catalog/context'
import { NO_LIMITS, readTrial, trialContext } from '#shared/degree/trial'
import { count } from '#shared/words'
import { findingSubject, findingText } from '#shared/route/texts'

/** A record from a file, to look at: read here, kept nowhere, never written to a real record. */
useHead({ title: 'Trial record · Ridgeway' })
const student = useStudent()
const college = useCollege()
const panel = useCoursePanel()
const { programs, failure, load } = usePrograms()
const files = useFileDialog({ accept: 'application/json,.json', multiple: false, reset: true })
files.onChange((chosen) => void take(chosen?.[0]))
const over = ref(false)
const fileName = ref('')
const content = shallowRef<RecordContent>()
const faults = ref<ShapeFault[]>([])
const SHOWN = 12
const code = ref(student.view!.programs[0]?.spec.code ?? '')
const spec = computed(
  () =>
    student.view!.programs.find((p) => p.spec.code === code.value)?.spec ??
    programs.value.find((one) => one.code === code.value)
)

async function take(file: File | undefined) {
  over.value = false
  if (!file) return
  fileName.value = file.name
  content.value = undefined
  const read = readFileText(await file.text(), recordFile)
  if (!read.ok) {
    faults.value = read.faults
    return
  }
  try {
    content.value = recordFrom(read.value, college.catalogContext!.catalog.scale)
    faults.value = []
  } catch (error) {
    if (!(error instanceof RangeError)) throw error
    faults.value = [{ path: '', message: error.message }]
  }
}
const trial = computed(() =>
  content.value && spec.value && college.catalogContext
    ? readTrial(
        content.value,
        [programOf(spec.value, college.catalogContext)],
        college.catalogContext.catalog,
        college.catalogContext.terms
      )
    : undefined
)
const finish = computed(() =>
  trial.value && content.value && college.catalogContext
    ? finishOf(
        { ...trial.value, now: college.stage.at, standing: content.value.standing },
        college.catalogContext
      )
    : undefined
)
/** What the checks say of the courses that the record plans for terms to come. */
const findings = computed(() => {
  const { catalogContext } = college
  if (!content.value || !spec.value || !catalogContext) return []
  const plannable = new Set<string>(college.termsAhead.map((term) => term.code))
  const planned = content.value.planned.filter((one) => plannable.has(one.term))
  const question = {
    programs: [programOf(spec.value, catalogContext)],
    catalog: catalogContext.catalog,
    terms: catalogContext.terms
  }
  const { running } = catalogContext
  return checkRoute(trialContext(content.value, question, { planned, carry: NO_LIMITS, plannable, running }))
})
const main = computed((): Audit | undefined => trial.value?.audits[0])
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Trial record</h1>
      <span class="pill">only a look, nothing is kept</span>
      <label>
        Program
        <v-select v-model="code" :items="programs" item-value="code" item-title="title" />
      </label>
      <NuxtLink class="textlink push" :to="`/students/${student.view!.student.id}/degree`"
        >Back to the degree</NuxtLink
      >
    </div>
    <p v-if="failure" role="alert">{{ failure }} <v-text-btn @click="load">Try again</v-text-btn></p>
    <div
      class="card drop"
      :class="{ over }"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="take($event.dataTransfer?.files[0])"
    >
      <p>
        A record in the format “ridgeway record 1” (JSON): drop it here, or
        <v-text-btn @click="files.open()">choose a file</v-text-btn>.
        <span v-if="fileName" class="quiet">{{ fileName }}</span>
      </p>
    </div>
    <section v-if="faults.length" class="card faults" role="alert">
      <h2>{{ fileName }} cannot be read: {{ count(faults.length, 'fault') }}</h2>
      <ul>
        <li v-for="(fault, i) in faults.slice(0, SHOWN)" :key="i">
          <strong>{{ fault.path || 'the file' }}</strong> {{ fault.message }}
        </li>
      </ul>
      <p v-if="faults.length > SHOWN" class="quiet">and {{ faults.length - SHOWN }} more</p>
    </section>
    <template v-if="trial && main">
      <h2>
        {{ content!.name || fileName }} <span class="quiet">against {{ main.program.spec.title }}</span>
      </h2>
      <p v-if="trial.unknown.length" class="unknown">
        The catalog has no {{ trial.unknown.join(', ') }}; they count nowhere.
      </p>
      <ul v-if="findings.length" class="unknown" aria-label="Findings of what is planned">
        <li
          v-for="finding in findings"
          :key="`${finding.code} ${findingSubject(finding, college.shortTerm)}`"
        >
          <strong>{{ findingSubject(finding, college.shortTerm) }}</strong>
          {{ findingText(finding, college.shortTerm) }}
        </li>
      </ul>
      <DegreeFigures :audit="main" :finish="finish" />
      <DegreeTree
        :audits="trial.audits"
        :outside="main.outside"
        :idle="main.idle"
        trial
        @open="panel.open($event)"
      />
    </template>
  </div>
</template>

<style scoped>
.drop {
  padding: 18px 14px;
  border-style: dashed;
  margin-bottom: 12px;
}
.drop.over {
  border-color: var(--dusk);
  background: var(--dusk-tint);
}
.faults {
  padding: 12px 14px;
  border-color: var(--rowan);
}
ul {
  margin: 6px 0;
  padding-left: 18px;
}
h2 {
  margin: 6px 0 10px;
}
h2 .quiet {
  font: 400 13.5px var(--body);
}
.unknown {
  background: var(--dusk-tint);
  border-radius: 8px;
  padding: 6px 12px;
  margin: 0 0 10px;
}
</style>
