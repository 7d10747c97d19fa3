<script setup lang="ts">
import type { Audit, ConditionResult } from '#core/degree'
import { conditionText, mostText } from '#shared/degree/texts'

/** What a program asks for beside courses, and what has to be met before it may be declared. */
const props = defineProps<{
  audit: Audit
  onlyNeeded?: boolean
  /** The record on screen, not one that is tried: who saw it can note what was reached. */
  real?: boolean
}>()
const student = useStudent()
const changes = useChanges()
const mayNote = computed(
  () => props.real && ['programAdvisor', 'registrar'].includes(student.view?.relation ?? '')
)

function stateOf({ spec, status, amounts, unknown, waived }: ConditionResult): string {
  if (waived) return 'waived'
  if (status === 'earned') return 'met'
  if (status !== undefined) return 'met if all goes well'
  const sure = amounts ? Object.values(amounts).reduce((sum, one) => sum + one, 0) : 0
  return unknown && 'least' in spec && sure + unknown >= spec.least ? 'not known yet' : 'not met'
}
const shown = computed(() =>
  props.audit.conditions.filter((one) => !props.onlyNeeded || one.status !== 'earned')
)
/** Needs and conditions of the entry set, as one list. */
const entry = computed(() => {
  const { entry } = props.audit
  if (!entry) return []
  return [
    ...entry.areas.flatMap(({ needs }) =>
      needs.map((result) => ({
        id: result.need.id,
        title: result.need.title,
        met: result.state === 'met',
        text: result.evidence.map((t) => `${t.course} ${t.grade ?? 'under way or planned'}`).join(', ')
      }))
    ),
    ...entry.conditions.map((one) => ({
      id: one.spec.id,
      title: one.spec.title,
      met: one.status === 'earned',
      text: conditionText(one)
    }))
  ]
})
const leftOf = ({ credits, courses, used }: Audit['limits'][number]) => (courses ?? credits ?? 0) - used
const limits = computed(() => (props.onlyNeeded ? [] : props.audit.limits))
const entryOpen = computed(() => entry.value.filter((one) => !one.met))
</script>

<template>
  <section
    v-if="shown.length || limits.length || entry.length"
    class="card conditions"
    aria-label="Beside courses"
  >
    <h3 v-if="shown.length || limits.length">Beside courses</h3>
    <ul v-if="shown.length || limits.length">
      <li v-for="one in shown" :key="one.spec.id" :class="{ open: one.status === undefined }">
        <span class="mark" :class="one.status ?? 'none'" aria-hidden="true" />
        <span class="title">{{ one.spec.title }}</span>
        <span class="quiet">{{ conditionText(one) }}</span>
        <strong class="state">{{ stateOf(one) }}</strong>
        <v-text-btn
          v-if="mayNote && one.spec.asks === 'milestone' && !one.waived"
          class="no-print"
          :aria-label="`${one.spec.title}: ${one.status ? 'take back' : 'note as reached'}`"
          @click="changes.noteMilestone(one.spec.id, !one.status)"
          >{{ one.status ? 'take back' : 'note as reached' }}</v-text-btn
        >
        <ConditionException v-if="real" :program="audit.program.spec.code" :result="one" />
      </li>
      <li v-for="one in limits" :key="one.title">
        <span class="mark limit" aria-hidden="true" />
        <span class="title">{{ one.title }}</span>
        <span class="quiet">at most {{ mostText(one) }}, {{ one.used }} used</span>
        <strong class="state">{{ leftOf(one) > 0 ? `${leftOf(one)} left` : 'all used' }}</strong>
      </li>
    </ul>
    <details v-if="entry.length && (!onlyNeeded || entryOpen.length)" :open="entryOpen.length > 0">
      <summary>
        {{ audit.program.spec.entry!.title }}:
        <strong>{{ entryOpen.length ? `${entryOpen.length} of ${entry.length} not met` : 'all met' }}</strong>
      </summary>
      <ul>
        <li v-for="one in entry" :key="one.id" :class="{ open: !one.met }">
          <span class="mark" :class="one.met ? 'earned' : 'none'" aria-hidden="true" />
          <span class="title">{{ one.title }}</span>
          <span class="quiet">{{ one.text }}</span>
          <strong class="state">{{ one.met ? 'met' : 'not met' }}</strong>
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.conditions {
  padding: 10px 14px;
  margin-bottom: 10px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 4px 0;
}
li {
  display: grid;
  grid-template-columns: 12px minmax(0, 6fr) minmax(0, 5fr) 136px;
  gap: 0 10px;
  align-items: baseline;
  padding: 3px 0;
}
li + li {
  border-top: 1px solid var(--rule);
}
.state {
  font-weight: 400;
  text-align: right;
}
.open .state {
  font-weight: 650;
  color: var(--ember);
}
.mark {
  width: 10px;
  height: 10px;
  border-radius: 50%;
  border: 1.5px dashed var(--dusk);
  align-self: center;
}
.mark.earned {
  background: var(--dusk);
  border-style: solid;
}
.mark.none {
  border: 1.5px dotted var(--quiet);
}
.mark.limit {
  border: 0;
  border-radius: 0;
  height: 2px;
  background: var(--quiet);
}
summary {
  cursor: pointer;
  padding: 2px 0;
}
@media (max-width: 720px) {
  li {
    grid-template-columns: 12px minmax(0, 1fr) auto;
  }
  li .quiet {
    grid-column: 2 / -1;
    grid-row: 2;
  }
}
</style>
