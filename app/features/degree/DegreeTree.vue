<script setup lang="ts">
import { candidatesFor, type Audit, type IdleAttempt, type OutsideCourse } from '#core/degree'
import type { CourseCode } from '#core/ids'
import { areaHues, areaKey } from '~/ui/useHues'
import { OUTSIDE_HUE } from '#shared/tokens'
import { shareStructure } from '#shared/structuralSharing'
import { programFigures, programText } from '#shared/degree/figures'
import { candidateQuestion } from '#shared/degree/candidateQuestion'
import { creditsText } from '#shared/words'
import { REFUSED } from '#shared/route/texts'

/** The requirement tree with its evidence; of a trial record without anything to do. */
const props = defineProps<{
  audits: readonly Audit[]
  outside: readonly OutsideCourse[]
  idle: readonly IdleAttempt[]
  onlyNeeded?: boolean
  trial?: boolean
  /** A course or an area that is pointed at elsewhere. */
  lit?: string | undefined
}>()
const emit = defineEmits<{ open: [course: CourseCode]; point: [what: string | undefined] }>()
const student = useStudent()
const college = useCollege()
const hues = computed(() => areaHues(props.audits))
const NOTHING = {}

type Waiting = Record<string, Record<string, { fit: number; run: number }>>
/** By area, then by open need: the courses that would meet it, and those of them that run. */
const waiting = computed((before?: Waiting): Waiting => {
  const found: Waiting = {}
  const term = student.planning
  if (props.trial || !term || !college.catalogContext || !student.reading) return found
  const question = candidateQuestion(student.reading, college.catalogContext, term)
  for (const audit of props.audits)
    for (const { area, needs } of audit.areas)
      for (const need of needs) {
        if (need.state !== 'needed') continue
        const { list } = candidatesFor(need, question)
        const own = (found[areaKey(audit, area.id)] ??= {})
        own[need.need.id] = { fit: list.length, run: list.filter((c) => c.runs).length }
      }
  return shareStructure(before, found)
})
const shownAreas = (audit: Audit) =>
  props.onlyNeeded ? audit.areas.filter((area) => area.state === 'needed') : audit.areas
/** What stands under the pointer or has the focus lights up in the picture too. */
function point(event: Event) {
  emit('point', (event.target as HTMLElement).closest<HTMLElement>('[data-points]')?.dataset.points)
}
const IDLE: Record<IdleAttempt['why'], string> = {
  failed: 'failed: gives no credits',
  withdrawn: 'withdrawn: gives no credits',
  audited: 'sat in on: gives no credits',
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
          >{{ audit.program.spec.credits }} credits: {{ programText(programFigures(audit)) }}</span
        >
      </h2>
      <div class="areas">
        <DegreeArea
          v-for="area in shownAreas(audit)"
          :key="area.area.id"
          :program="audit.program.spec.code"
          :area="area"
          v-bind="hues.get(areaKey(audit, area.area.id))!"
          :waiting="waiting[areaKey(audit, area.area.id)] ?? NOTHING"
          :lit="lit === area.area.title"
          :lit-course="area.needs.some((n) => n.evidence.some((t) => t.course === lit)) ? lit : undefined"
          :only-needed="onlyNeeded"
          :trial="trial"
          @open="emit('open', $event)"
        />
      </div>
      <ConditionList :audit="audit" :only-needed="onlyNeeded" :real="!trial" />
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
      <div v-for="{ attempt, why, full } in outside" :key="attempt.key" class="need">
        <p class="name">
          <strong>{{ attempt.course }}</strong> {{ attempt.grade }} · {{ creditsText(attempt.credits) }}
        </p>
        <p class="evidence">
          {{ REFUSED[why]
          }}<template v-if="full.length">: {{ full.map((n) => n.title).join(', ') }}</template>
        </p>
      </div>
      <div v-for="{ entry, why, by } in idle" :key="`${entry.course} ${entry.term}`" class="need">
        <p class="name">
          <s><strong>{{ entry.course }}</strong></s>
          {{ entry.grade }} · {{ entry.term ? college.termName(entry.term) : '' }}
        </p>
        <p class="evidence">{{ IDLE[why] }}<template v-if="by">: {{ by }} counts instead</template></p>
      </div>
    </section>
  </div>
</template>

<style scoped>
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
