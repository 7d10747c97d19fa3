<script setup lang="ts">
import { candidatesFor, type AreaResult, type Audit, type NeedResult, type Taking } from '#core/degree'
import type { CourseCode } from '#core/ids'
import { areaKey } from '~/composables/useHues'
import { OUTSIDE_HUE } from '~/theme/tokens'
import { count, creditsText, REFUSED } from '#wire/words'

useHead({ title: 'Degree · Ridgeway' })
const student = useStudent()
const college = useCollege()
const standing = useStanding()
const panel = useCoursePanel()
const { hues } = useHues()

const reading = computed(() => student.reading!)
const picture = computed(() => student.picture!)
const main = computed(() => standing.main.value)
const opened = ref<string>()
const onlyNeeded = ref(false)
const forecasting = ref(false)
/** Met areas are one line until they are asked for. */
const unfolded = reactive(new Set<string>())
const pointed = ref<string>()
const unconfirmed = computed(() => picture.value.programs.filter((p) => p.confirmed !== 'confirmed'))

const term = computed(() => standing.term.value)
const termRun = useTermRun()
const needKey = (audit: Audit, result: NeedResult) => `${audit.program.spec.code} ${result.need.id}`
const candidates = computed(() => {
  const found = new Map<string, ReturnType<typeof candidatesFor>>()
  if (!term.value || !college.shelf) return found
  const { catalog, running } = college.shelf
  for (const audit of reading.value.audits) {
    for (const area of audit.areas) {
      for (const need of area.needs) {
        if (need.state !== 'needed') continue
        found.set(
          needKey(audit, need),
          candidatesFor(need, reading.value.audits, reading.value.takings, catalog, term.value, running)
        )
      }
    }
  }
  return found
})
const runsText = (key: string) => {
  const list = candidates.value.get(key) ?? []
  const runs = list.filter((c) => c.runs).length
  return `${count(list.length, 'course')} ${list.length === 1 ? 'fits' : 'fit'}, ${runs} run${runs === 1 ? 's' : ''} in ${college.shortTerm(term.value?.code ?? '')}`
}
const missingText = ({ need, missing, lacks }: NeedResult) => {
  const parts = [
    ...(missing > 0
      ? [`${need.measure === 'credits' ? creditsText(missing) : count(missing, 'course')} needed`]
      : []),
    ...(lacks.subjects ? [`${count(lacks.subjects, 'subject')} more needed`] : []),
    ...lacks.parts.map(
      (part) =>
        `${need.measure === 'credits' ? creditsText(part.amount) : count(part.amount, 'course')} of ${part.from} needed`
    )
  ]
  return parts.join(', ')
}

const folded = (audit: Audit, area: AreaResult) =>
  area.state === 'met' && !unfolded.has(areaKey(audit, area.area.id))
const toggle = (key: string) => (unfolded.has(key) ? unfolded.delete(key) : unfolded.add(key))
const shownAreas = (audit: Audit) =>
  onlyNeeded.value ? audit.areas.filter((area) => area.state === 'needed') : audit.areas
const shownNeeds = (area: AreaResult) =>
  onlyNeeded.value ? area.needs.filter((need) => need.state === 'needed') : area.needs
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
  pointed.value = (event.target as HTMLElement).closest<HTMLElement>('[data-points]')?.dataset.points
}
const gpa = (value: number | undefined) => (value === undefined ? '–' : value.toFixed(2))
const IDLE = {
  failed: 'failed: gives no credits',
  withdrawn: 'withdrawn: gives no credits',
  repeated: 'repeated: the better attempt counts'
}
</script>

<template>
  <div v-if="main" class="page">
    <div class="page-head">
      <h1>{{ main.program.spec.title }}</h1>
      <span class="pill">catalog {{ main.program.spec.catalogYear }}</span>
      <span v-for="audit in reading.audits.slice(1)" :key="audit.program.spec.code" class="pill"
        >{{ audit.program.spec.kind }}: {{ audit.program.spec.shortTitle }}</span
      >
      <div class="views" role="group" aria-label="What is shown">
        <button :aria-pressed="!onlyNeeded" @click="onlyNeeded = false">Everything</button>
        <button :aria-pressed="onlyNeeded" @click="onlyNeeded = true">Still needed</button>
      </div>
    </div>
    <p v-if="reading.audits.some((audit) => audit.ended === 'limit')" class="rests">
      This reading is good but not proved to be the best one; the program is very large.
    </p>
    <p v-if="unconfirmed.length" class="rests">
      This reading rests on an unconfirmed program: {{ unconfirmed.map((p) => p.spec.title).join(', ') }}.
    </p>
    <dl class="figures">
      <div class="card">
        <dd>{{ main.amounts.earned }}</dd>
        <dt>of {{ main.program.spec.credits }} credits earned</dt>
      </div>
      <div class="card">
        <dd>{{ main.amounts.underWay }}</dd>
        <dt>under way this term</dt>
      </div>
      <div class="card">
        <dd>{{ main.amounts.registered + main.amounts.planned }}</dd>
        <dt>{{ main.amounts.registered ? 'registered and mapped' : 'mapped on the route' }}</dt>
      </div>
      <div class="card" :class="{ wanted: main.amounts.needed > 0 }">
        <dd>{{ main.amounts.needed }}</dd>
        <dt>still needed</dt>
      </div>
      <div class="card">
        <dd>
          {{ gpa(main.gpa.overall) }}
          <button class="textlink ask" :aria-expanded="forecasting" @click="forecasting = !forecasting">
            forecast
          </button>
        </dd>
        <dt>GPA · {{ gpa(main.gpa.program) }} in the program</dt>
      </div>
      <div class="card">
        <dd>{{ standing.finish.value ? college.shortTerm(standing.finish.value.code) : '–' }}</dd>
        <dt>{{ standing.finish.value ? 'finish on this route' : 'no finish on this route yet' }}</dt>
      </div>
    </dl>

    <GradeForecast v-if="forecasting" :audit="main" />

    <div class="columns">
      <div class="tree" @mouseover="point" @focusin="point" @mouseleave="pointed = undefined">
        <template v-for="audit in reading.audits" :key="audit.program.spec.code">
          <h2 v-if="audit !== main" class="second">
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
                      @click="panel.open(taking.course)"
                    >
                      <CourseChip
                        :taking="taking"
                        :hue="hues.get(areaKey(audit, area.area.id))!.hue"
                        :suffix="suffix(taking)"
                        :run="termRun"
                      />
                    </button>
                    <button
                      v-if="result.state === 'needed'"
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
                </div>
              </template>
            </section>
          </div>
        </template>
        <p v-if="onlyNeeded && !reading.audits.some((a) => shownAreas(a).length)" class="card nothing">
          Nothing is needed any more: everything is met, under way or on the route.
        </p>

        <section
          v-if="!onlyNeeded && (reading.outside.length || main.idle.length)"
          class="card area"
          :class="`hue-${OUTSIDE_HUE}`"
        >
          <header><h3>Outside the degree</h3></header>
          <div v-for="{ taking, why, full } in reading.outside" :key="taking.key" class="need">
            <p class="name">
              <strong>{{ taking.course }}</strong> {{ taking.grade }} · {{ creditsText(taking.credits) }}
            </p>
            <p class="evidence">
              {{ REFUSED[why]
              }}<template v-if="full.length">: {{ full.map((n) => n.title).join(', ') }}</template>
            </p>
          </div>
          <div v-for="{ entry, why } in main.idle" :key="`${entry.course} ${entry.term}`" class="need">
            <p class="name">
              <s
                ><strong>{{ entry.course }}</strong></s
              >
              {{ entry.grade }} · {{ entry.term ? college.termName(entry.term) : '' }}
            </p>
            <p class="evidence">{{ IDLE[why] }}</p>
          </div>
        </section>
      </div>
      <LazyCourseFlow
        v-if="!onlyNeeded && reading.takings.counted.length"
        class="picture"
        :audit="main"
        :outside="reading.outside"
        :pointed="pointed"
        @open="panel.open($event as CourseCode)"
      />
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 452px);
  gap: 14px;
  align-items: start;
}
.columns > .tree:only-child {
  grid-column: 1 / -1;
}
.views {
  margin-left: auto;
  display: flex;
  border: 1px solid var(--dusk);
  border-radius: 8px;
  overflow: hidden;
}
.views button {
  padding: 4px 12px;
  color: var(--dusk);
  font-weight: 600;
}
.views button[aria-pressed='true'] {
  background: var(--dusk);
  color: var(--on-dusk);
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
.nothing {
  padding: 14px;
}
.rests {
  background: var(--dusk-tint);
  border-radius: 8px;
  padding: 6px 12px;
  margin: 0 0 10px;
}
.figures {
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  gap: 10px;
  margin: 0 0 12px;
}
.figures .card {
  display: flex;
  flex-direction: column;
  padding: 8px 12px;
}
.figures dd {
  font-family: var(--display);
  font-weight: 650;
  font-size: 21px;
  line-height: 1.3;
}
.ask {
  float: right;
  font: 600 12.5px var(--body);
  margin-top: 6px;
}
.figures dt {
  color: var(--quiet);
}
.figures .wanted {
  border-color: var(--ember);
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
@media (max-width: 1100px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 980px) {
  .figures {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
}
@media (max-width: 720px) {
  .figures {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
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
