<script setup lang="ts">
import type { Audit } from '#core/degree'
import type { Finish } from '#core/chain'
import { programFigures } from '#shared/degree/figures'
import { averageText, creditsText } from '#shared/words'
import { finishText } from '#shared/degree/texts'
import { USUAL_LOAD } from '#shared/degree/candidateQuestion'

/** The figures over a degree: credits by status, averages, the earliest finish and what makes it so. */
const props = withDefaults(
  defineProps<{
    audit: Audit
    finish?: Finish | undefined
    /** The finish of the route as it is planned. */
    planned?: string | undefined
    /** Whether the forecast is open; null where none is to be had. */
    forecast?: boolean | null
  }>(),
  { finish: undefined, planned: undefined, forecast: null }
)
const emit = defineEmits<{ forecast: [] }>()
const college = useCollege()
const asked = ref(false)
const figures = computed(() => programFigures(props.audit))
const gpa = (value: number | undefined) => (value === undefined ? '–' : averageText(value))
const earliest = computed(() =>
  !props.finish || props.finish.kind === 'never'
    ? '–'
    : props.finish.kind === 'done'
      ? 'now'
      : college.shortTerm(props.finish.term.code)
)
</script>

<template>
  <dl class="figures">
    <div class="card">
      <dd>{{ figures.earned }}</dd>
      <dt>of {{ figures.credits }} credits earned</dt>
    </div>
    <div class="card">
      <dd>{{ figures.underWay }}</dd>
      <dt>under way{{ figures.gradesDue ? ` · ${figures.gradesDue} with grades due` : '' }}</dt>
    </div>
    <div class="card">
      <dd>{{ figures.ahead }}</dd>
      <dt>
        {{ audit.amounts.registered ? 'registered and mapped' : 'mapped on the route'
        }}{{ figures.beyond ? ` · ${creditsText(figures.beyond)} beyond the ${figures.kind}` : '' }}
      </dt>
    </div>
    <div class="card" :class="{ wanted: figures.needed > 0 }">
      <dd>{{ figures.needed }}</dd>
      <dt>still needed</dt>
    </div>
    <div class="card">
      <dd>
        {{ gpa(audit.gpa.overall) }}
        <v-text-btn
          v-if="forecast !== null"
          class="ask no-print"
          :aria-expanded="forecast"
          @click="emit('forecast')"
        >
          forecast
        </v-text-btn>
      </dd>
      <dt>GPA · {{ gpa(audit.gpa.program) }} in the program</dt>
    </div>
    <div class="card">
      <dd>
        {{ earliest }}
        <v-text-btn v-if="finish" class="ask no-print" :aria-expanded="asked" @click="asked = !asked">
          why
        </v-text-btn>
      </dd>
      <dt>earliest finish{{ planned ? ` · ${planned} on this route` : ` at ${USUAL_LOAD} a term` }}</dt>
    </div>
  </dl>
  <p v-if="asked && finish" class="card why" role="status">
    {{ finishText(finish, college.shortTerm) }} Reckoned with {{ USUAL_LOAD }} credits a term and no summers;
    a lower bound, since hours and seats are not looked at.
  </p>
</template>

<style scoped>
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
dd {
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
dt {
  color: var(--quiet);
}
.wanted {
  border-color: var(--ember);
}
.why {
  padding: 8px 14px;
  margin-bottom: 12px;
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
}
</style>
