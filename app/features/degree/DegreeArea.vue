<script setup lang="ts">
import type { AreaResult, NeedResult, Attempt } from '#core/degree'
import type { CourseCode } from '#core/ids'
import { count, creditsText } from '#shared/words'

/** One area of the requirement tree: what is met and by what, and what is still needed. */
const props = defineProps<{
  /** The code of the program. */
  program: string
  area: AreaResult
  hue: number
  /** The hue repeats; the edge tells them apart. */
  doubled: boolean
  /** Of each open need, how many courses would meet it and run in the coming term. */
  waiting: Record<string, { fit: number; run: number }>
  /** What is lit up: courses, or the area by its title. */
  lit: boolean
  litCourse?: string | undefined
  onlyNeeded?: boolean
  trial?: boolean
}>()
const emit = defineEmits<{ open: [course: CourseCode] }>()
const student = useStudent()
const college = useCollege()
const termRun = useTermRun()
/** The need whose courses are listed. */
const opened = ref<string>()
/** A met area is one line until it is asked for. */
const unfolded = ref(false)

const folded = computed(() => props.area.state === 'met' && !unfolded.value)
const needs = computed(() =>
  props.onlyNeeded ? props.area.needs.filter((need) => need.state === 'needed') : props.area.needs
)
const taken = ({ choice, taken: branches }: AreaResult['choices'][number]) =>
  `${choice.title}: ${choice.of
    .filter((branch) => branches.includes(branch.id))
    .map((branch) => branch.title)
    .join(', ')}`
function missing({ need, missing: amount, lacks, beyond }: NeedResult): string {
  const text = (n: number) => (need.measure === 'credits' ? creditsText(n) : count(n, 'course'))
  return [
    ...(amount > 0 ? [`${text(amount)} needed`] : []),
    ...(lacks.subjects ? [`${count(lacks.subjects, 'subject')} more needed`] : []),
    ...lacks.parts.map((part) => `${text(part.amount)} of ${part.from} needed`),
    ...(beyond ? ['it stays open whatever is still taken'] : [])
  ].join(', ')
}
function running(need: string): string {
  const { fit, run } = props.waiting[need] ?? { fit: 0, run: 0 }
  return `${count(fit, 'course')} ${fit === 1 ? 'fits' : 'fit'}, ${run} run${run === 1 ? 's' : ''} in ${college.shortTerm(student.planning?.code ?? '')}`
}
function suffix({ status, term }: Attempt): string | undefined {
  return status === 'planned' || status === 'registered' ? college.shortTerm(term ?? '') : undefined
}
</script>

<template>
  <section class="card area" :class="[`hue-${hue}`, { doubled, lit }]">
    <header>
      <h3 :data-points="area.area.title">
        <v-bare-btn
          v-if="area.state === 'met'"
          class="fold"
          :aria-expanded="!folded"
          @click="unfolded = !unfolded"
        >
          {{ area.area.title }}
        </v-bare-btn>
        <template v-else>{{ area.area.title }}</template>
      </h3>
      <AreaBar :amounts="area.amounts" :credits="area.credits" :hue="hue" />
      <p class="sums">
        {{ area.amounts.earned }} earned
        <template v-if="area.amounts.gradesDue">· {{ area.amounts.gradesDue }} due</template> ·
        {{ area.amounts.underWay }} under way<br />
        {{ area.amounts.registered + area.amounts.planned }} mapped ·
        <strong>{{ area.amounts.needed }} needed</strong>
      </p>
    </header>
    <template v-if="!folded">
      <p v-if="area.area.note" class="quiet small taken">{{ area.area.note }}</p>
      <p v-for="one in area.choices" :key="one.choice.id" class="quiet small taken">
        {{ taken(one) }}
      </p>
      <div v-for="result in needs" :key="result.need.id" class="need">
        <p class="name">{{ result.need.title }}</p>
        <div class="evidence">
          <button
            v-for="attempt in result.evidence"
            :key="attempt.key"
            class="bare"
            :class="{ lit: litCourse === attempt.course }"
            :data-points="attempt.course"
            @click="emit('open', attempt.course)"
          >
            <CourseChip :attempt="attempt" :hue="hue" :suffix="suffix(attempt)" :run="termRun" />
          </button>
          <span v-if="result.state === 'needed' && trial" class="wanting">{{ missing(result) }}</span>
          <v-bare-btn
            v-else-if="result.state === 'needed'"
            class="wanting"
            :aria-expanded="opened === result.need.id"
            @click="opened = opened === result.need.id ? undefined : result.need.id"
          >
            {{ missing(result) }} · {{ running(result.need.id) }}
          </v-bare-btn>
        </div>
        <NeedCandidates
          v-if="opened === result.need.id && result.state === 'needed'"
          class="candidates"
          :result="result"
        />
        <NeedException v-if="!trial" :program="program" :result="result" />
        <p v-if="result.need.note" class="quiet small note">{{ result.need.note }}</p>
      </div>
    </template>
  </section>
</template>

<style scoped>
.area {
  position: relative;
  padding: 10px 14px 10px 20px;
  margin-bottom: 10px;
  border-left: 8px solid var(--hue);
}
.area.doubled {
  border-left-style: double;
}
.area.lit {
  background: color-mix(in srgb, var(--hue) 9%, var(--card));
}
.bare.lit {
  outline: 2px solid var(--hue);
  outline-offset: 1px;
  border-radius: 6px;
}
.fold {
  font: inherit;
  text-align: left;
  text-decoration: underline dotted var(--quiet) 1px;
  text-underline-offset: 3px;
}
.taken {
  margin: 0;
}
.bare {
  display: flex;
  max-width: 100%;
}
.wanting {
  border: 1px dotted var(--quiet);
  border-radius: 6px;
  padding: 1px 9px;
  font-size: 12.5px;
  color: var(--quiet);
}
.wanting:hover {
  color: var(--ink);
}
.candidates {
  grid-column: 1 / -1;
  margin: 6px 0 4px;
}
.note {
  grid-column: 1 / -1;
  margin: 0;
}
header {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr) 168px;
  gap: 16px;
  align-items: center;
  min-height: 26px;
}
.sums {
  margin: 0;
  text-align: right;
}
.need {
  display: grid;
  grid-template-columns: 222px minmax(0, 1fr);
  gap: 2px 16px;
  padding: 4px 0;
}
.evidence {
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  gap: 5px;
}
.name {
  margin: 2px 0;
}
@media (max-width: 720px) {
  header {
    grid-template-columns: 1fr;
    gap: 4px;
  }
  .sums {
    text-align: left;
  }
  .need {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
