<script setup lang="ts">
import {
  candidatesFor,
  type AreaResult,
  type Audit,
  type IdleAttempt,
  type NeedResult,
  type OutsideCourse,
  type Taking
} from '#core/degree'
import type { CourseCode } from '#core/ids'
import { areaHues, areaKey } from '~/composables/useHues'
import { OUTSIDE_HUE } from '~/theme/tokens'
import { candidateQuestion } from '#wire/reading'
import { count, creditsText, REFUSED } from '#wire/words'

/** The requirement tree with its evidence; of a trial record without anything to do. */
const props = defineProps<{
  audits: readonly Audit[]
  outside: readonly OutsideCourse[]
  idle: readonly IdleAttempt[]
  onlyNeeded?: boolean
  trial?: boolean
}>()
const emit = defineEmits<{ open: [course: CourseCode]; point: [what: string | undefined] }>()
const student = useStudent()
const college = useCollege()
const hues = computed(() => areaHues(props.audits))
const opened = ref<string>()
/** Met areas are one line until they are asked for. */
const unfolded = reactive(new Set<string>())
const term = computed(() => student.coming)
const termRun = useTermRun()
const needKey = (audit: Audit, result: NeedResult) => `${audit.program.spec.code} ${result.need.id}`

const candidates = computed(() => {
  const found = new Map<string, { fit: number; run: number }>()
  if (props.trial || !term.value || !college.shelf || !student.reading) return found
  const question = candidateQuestion(student.reading, college.shelf, term.value)
  for (const audit of props.audits)
    for (const need of audit.areas.flatMap((area) => area.needs)) {
      if (need.state !== 'needed') continue
      const { list } = candidatesFor(need, question)
      found.set(needKey(audit, need), { fit: list.length, run: list.filter((c) => c.runs).length })
    }
  return found
})
const runsText = (key: string) => {
  const { fit, run } = candidates.value.get(key) ?? { fit: 0, run: 0 }
  return `${count(fit, 'course')} ${fit === 1 ? 'fits' : 'fit'}, ${run} run${run === 1 ? 's' : ''} in ${college.shortTerm(term.value?.code ?? '')}`
}
const missingText = ({ need, missing, lacks }: NeedResult) => {
  const amount = (n: number) => (need.measure === 'credits' ? creditsText(n) : count(n, 'course'))
  const parts = [
    ...(missing > 0 ? [`${amount(missing)} needed`] : []),
    ...(lacks.subjects ? [`${count(lacks.subjects, 'subject')} more needed`] : []),
    ...lacks.parts.map((part) => `${amount(part.amount)} of ${part.from} needed`)
  ]
  return parts.join(', ')
}

const folded = (audit: Audit, area: AreaResult) =>
  area.state === 'met' && !unfolded.has(areaKey(audit, area.area.id))
const toggle = (key: string) => (unfolded.has(key) ? unfolded.delete(key) : unfolded.add(key))
const shownAreas = (audit: Audit) =>
  props.onlyNeeded ? audit.areas.filter((area) => area.state === 'needed') : audit.areas
const shownNeeds = (area: AreaResult) =>
  props.onlyNeeded ? area.needs.filter((need) => need.state === 'needed') : area.needs
const takenText = ({ choice, taken }: AreaResult['choices'][number]) =>
  `${choice.title}: ${choice.of
    .filter((branch) => taken.includes(branch.id))
    .map((branch) => branch.title)
    .join(', ')}`

function suffix(taking: Taking): string | undefined {
  return taking.firmness === 'planned' || taking.firmness === 'registered'
    ? college.shortTerm(taking.term ?? '')
    : undefined
}
/** What stands under the pointer or has the focus lights up in the picture too. */
function point(event: Event) {
  emit('point', (event.target as HTMLElement).closest<HTMLElement>('[data-points]')?.dataset.points)
}
const IDLE: Record<IdleAttempt['why'], string> = {
  failed: 'failed: gives no credits',
  withdrawn: 'withdrawn: gives no credits',
  repeated: 'repeated: another attempt counts',
  exclusive: 'gives no credit beside another course'
}
</script>

<template>
  <div class="tree" @mouseover="point" @focusin="point" @mouseleave="emit('point', undefined)">
    <template v-for="audit in audits" :key="audit.program.spec.code">
      <h2 v-if="audit !== audits[0]" class="second">
        {{ audit.program.spec.title }}
        <span class="quiet small"
          >{{ audit.amounts.needed }} of {{ audit.program.spec.credits }} credits still needed</span
        >
      </h2>
      <div class="areas">
        <section
          v-for="area in shownAreas(audit)"
          :key="area.area.id"
          class="card area"
          :class="[
            `hue-${hues.get(areaKey(audit, area.area.id))!.hue}`,
            { doubled: hues.get(areaKey(audit, area.area.id))!.doubled }
          ]"
        >
          <header>
            <h3 :data-points="area.area.title">
              <button
                v-if="area.state === 'met'"
                class="fold"
                :aria-expanded="!folded(audit, area)"
                @click="toggle(areaKey(audit, area.area.id))"
              >
                {{ area.area.title }}
              </button>
              <template v-else>{{ area.area.title }}</template>
            </h3>
            <AreaBar
              :amounts="area.amounts"
              :credits="area.credits"
              :hue="hues.get(areaKey(audit, area.area.id))!.hue"
            />
            <p class="sums">
              {{ area.amounts.earned }} earned · {{ area.amounts.underWay }} under way<br />
              {{ area.amounts.registered + area.amounts.planned }} mapped ·
              <strong>{{ area.amounts.needed }} needed</strong>
            </p>
          </header>
          <template v-if="!folded(audit, area)">
            <p v-if="area.area.note" class="quiet small taken">{{ area.area.note }}</p>
            <p v-for="one in area.choices" :key="one.choice.id" class="quiet small taken">
              {{ takenText(one) }}
            </p>
            <div v-for="result in shownNeeds(area)" :key="result.need.id" class="need">
              <p class="name">{{ result.need.title }}</p>
              <div class="evidence">
                <button
                  v-for="taking in result.evidence"
                  :key="taking.key"
                  class="bare"
                  :data-points="taking.course"
                  @click="emit('open', taking.course)"
                >
                  <CourseChip
                    :taking="taking"
                    :hue="hues.get(areaKey(audit, area.area.id))!.hue"
                    :suffix="suffix(taking)"
                    :run="termRun"
                  />
                </button>
                <span v-if="result.state === 'needed' && trial" class="wanting">{{
                  missingText(result)
                }}</span>
                <button
                  v-else-if="result.state === 'needed'"
                  class="wanting"
                  :aria-expanded="opened === needKey(audit, result)"
                  @click="opened = opened === needKey(audit, result) ? undefined : needKey(audit, result)"
                >
                  {{ missingText(result) }} · {{ runsText(needKey(audit, result)) }}
                </button>
              </div>
              <NeedCandidates
                v-if="opened === needKey(audit, result)"
                class="candidates"
                :result="result"
                @added="opened = undefined"
              />
              <NeedException v-if="!trial" :program="audit.program.spec.code" :result="result" />
              <p v-if="result.need.note" class="quiet small note">{{ result.need.note }}</p>
            </div>
          </template>
        </section>
      </div>
      <ConditionList :audit="audit" :only-needed="onlyNeeded" />
    </template>
    <p v-if="onlyNeeded && !audits.some((a) => shownAreas(a).length)" class="card nothing">
      Nothing is needed any more: everything is met, under way or on the route.
    </p>

    <section
      v-if="!onlyNeeded && (outside.length || idle.length)"
      class="card area"
      :class="`hue-${OUTSIDE_HUE}`"
    >
      <header><h3>Outside the degree</h3></header>
      <div v-for="{ taking, why, full } in outside" :key="taking.key" class="need">
        <p class="name">
          <strong>{{ taking.course }}</strong> {{ taking.grade }} · {{ creditsText(taking.credits) }}
        </p>
        <p class="evidence">
          {{ REFUSED[why]
          }}<template v-if="full.length">: {{ full.map((n) => n.title).join(', ') }}</template>
        </p>
      </div>
      <div v-for="{ entry, why, by } in idle" :key="`${entry.course} ${entry.term}`" class="need">
        <p class="name">
          <s
            ><strong>{{ entry.course }}</strong></s
          >
          {{ entry.grade }} · {{ entry.term ? college.termName(entry.term) : '' }}
        </p>
        <p class="evidence">
          {{ IDLE[why] }}<template v-if="by">: {{ by }} counts instead</template>
        </p>
      </div>
    </section>
  </div>
</template>

<style scoped>
.fold {
  font: inherit;
  text-align: left;
  text-decoration: underline dotted var(--quiet) 1px;
  text-underline-offset: 3px;
}
.taken {
  margin: 0;
}
.nothing {
  padding: 14px;
}
.second {
  margin: 18px 0 8px;
}
.area {
  position: relative;
  padding: 10px 14px 10px 20px;
  margin-bottom: 10px;
  border-left: 8px solid var(--hue);
}
.area.doubled {
  border-left-style: double;
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
.name,
.need p.evidence {
  margin: 2px 0;
}
.evidence {
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  gap: 5px;
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
