<!-- Above 300 lines: one form; its parts are checked and sent as one body. -->
<script setup lang="ts">
import { termBody, type TermPlan } from '#shared/offices/terms'
import { untilText } from '#shared/offices/termTexts'
import { count } from '#shared/words'

/** Dates and rules of a term. What is wrong stands at its field, before it is sent and after. */
const props = defineProps<{ plan: TermPlan }>()
const emit = defineEmits<{ saved: [] }>()
const terms = useTerms()
const notice = useNotice()

const copyOf = (plan: TermPlan): TermPlan => structuredClone(toRaw(plan))
const draft = ref(copyOf(props.plan))
// Read anew after the prices were saved, the same dates are no reason to lose what is typed.
watch(
  () => props.plan,
  (plan, before) => {
    const { version, prices } = plan
    const isSame = JSON.stringify({ ...before, version, prices }) === JSON.stringify(plan)
    draft.value = isSame ? { ...draft.value, version, prices } : copyOf(plan)
  }
)
const isChanged = computed(() => JSON.stringify(draft.value) !== JSON.stringify(props.plan))
const { busy, problem, faults, errors, send } = useDraftCheck(termBody, () => draft.value)

async function save() {
  const done = await send((said) => terms.save(props.plan.code, said))
  if (!done) {
    // Somebody else was there: the dates stand as they are now.
    if (problem.value.includes('meanwhile')) emit('saved')
    return
  }
  notice.say(
    done.told
      ? `${draft.value.name}: saved. ${count(done.told, 'student')} who hold seats were told what has changed.`
      : `${draft.value.name}: saved.`
  )
  emit('saved')
}

const HOURS = [
  { key: 'addEnds', label: 'adding ends' },
  { key: 'dropFreeEnds', label: 'dropping without a trace ends' },
  { key: 'dropEnds', label: 'dropping ends' },
  { key: 'linesClose', label: 'lines close' }
] as const
const MAYBE = [
  { key: 'intentionsDue', label: 'intentions are handed in until' },
  { key: 'graduateBy', label: 'applications to graduate until' }
] as const
const OWN = [
  { key: 'addEnds', label: 'adding ends' },
  { key: 'dropFreeEnds', label: 'without a trace until' },
  { key: 'dropEnds', label: 'dropping until' }
] as const
const HALVES = [
  { value: 'full', title: 'the whole term' },
  { value: 'first', title: 'first half' },
  { value: 'second', title: 'second half' },
  { value: 'other', title: 'another part' }
]
const SIGN_OFFS = [
  { value: 'none', title: 'no sign-off' },
  { value: 'term', title: 'one sign-off opens the term' },
  { value: 'strict', title: 'only courses that were signed off' },
  { value: 'anew', title: 'only as it was signed off; a change asks for a new one' }
]
const SERVES = [
  { value: 'offer', title: 'a seat is offered, and taken or declined' },
  { value: 'automatic', title: 'the next in line moves in by itself' }
]
/** An empty field is no date. */
const orNone = (text: string) => text || null
const endOf = (time: string | null) => (time && /T00:00$/.test(time) ? untilText(time) : '')
function addSession() {
  const { start, end } = draft.value
  draft.value.sessions.push({
    ...{ code: '', name: '', half: 'other', start, end },
    ...{ addEnds: null, dropFreeEnds: null, dropEnds: null }
  })
}
</script>

<template>
  <form class="card term-form" novalidate aria-label="Dates and rules" @submit.prevent="save">
    <h2>Dates and rules</h2>
    <fieldset>
      <legend>Days of classes</legend>
      <div class="fields">
        <v-text-field v-model="draft.name" label="name" maxlength="40" :error-messages="errors('name')" />
        <v-text-field v-model="draft.start" type="date" label="first day" :error-messages="errors('start')" />
        <v-text-field v-model="draft.end" type="date" label="last day" :error-messages="errors('end')" />
      </div>
      <p v-if="plan.held" class="quiet small">
        {{ count(plan.held, 'student') }} hold seats: the days of classes stay. Deadlines can still move;
        those students are told.
      </p>
    </fieldset>
    <fieldset>
      <legend>Deadlines, campus time</legend>
      <div class="fields">
        <v-text-field
          v-for="{ key, label } in HOURS"
          :key="key"
          v-model="draft[key]"
          type="datetime-local"
          :label="label"
          :hint="endOf(draft[key])"
          persistent-hint
          :error-messages="errors(key)"
        />
        <v-text-field
          v-for="{ key, label } in MAYBE"
          :key="key"
          :model-value="draft[key] ?? ''"
          type="datetime-local"
          :label="label"
          :hint="endOf(draft[key]) || (draft[key] ? '' : 'not asked')"
          persistent-hint
          :error-messages="errors(key)"
          @update:model-value="draft[key] = orNone($event)"
        />
        <v-text-field
          v-model="draft.paymentDue"
          type="date"
          label="paid for by"
          :error-messages="errors('paymentDue')"
        />
      </div>
      <div v-for="(one, i) in draft.refunds" :key="i" class="fields">
        <v-text-field
          v-model="one.until"
          type="datetime-local"
          :label="`step ${i + 1} of giving back: until`"
          :hint="endOf(one.until)"
          persistent-hint
          :error-messages="errors(`refunds.${i}.until`)"
        />
        <v-text-field
          v-model.number="one.percent"
          type="number"
          min="0"
          max="100"
          :label="`step ${i + 1}: percent`"
          :error-messages="errors(`refunds.${i}.percent`)"
        />
      </div>
    </fieldset>
    <fieldset>
      <legend>Sessions</legend>
      <p v-if="errors('sessions')" class="stops" role="alert">{{ errors('sessions') }}</p>
      <div v-for="(one, i) in draft.sessions" :key="i" class="one">
        <div class="fields">
          <v-text-field
            v-model="one.code"
            :label="`session ${i + 1}: code`"
            maxlength="8"
            :error-messages="errors(`sessions.${i}.code`)"
          />
          <v-text-field
            v-model="one.name"
            :label="`session ${i + 1}: name`"
            maxlength="60"
            :error-messages="errors(`sessions.${i}.name`)"
          />
          <v-select v-model="one.half" :label="`session ${i + 1}: lies in`" :items="HALVES" />
          <v-text-field
            v-model="one.start"
            type="date"
            :label="`session ${i + 1}: first day`"
            :error-messages="errors(`sessions.${i}.start`)"
          />
          <v-text-field
            v-model="one.end"
            type="date"
            :label="`session ${i + 1}: last day`"
            :error-messages="errors(`sessions.${i}.end`)"
          />
          <v-text-field
            v-for="{ key, label } in OWN"
            :key="key"
            :model-value="one[key] ?? ''"
            type="datetime-local"
            :label="`session ${i + 1}: ${label}`"
            :hint="one[key] ? endOf(one[key]) : 'as the term'"
            persistent-hint
            :error-messages="errors(`sessions.${i}.${key}`)"
            @update:model-value="one[key] = orNone($event)"
          />
        </div>
        <v-text-btn :aria-label="`Take session ${i + 1} out`" @click="draft.sessions.splice(i, 1)"
          >Take it out</v-text-btn
        >
      </div>
      <v-text-btn @click="addSession">Add a session</v-text-btn>
    </fieldset>
    <fieldset>
      <legend>No classes</legend>
      <div v-for="(one, i) in draft.holidays" :key="i" class="fields day">
        <v-text-field
          v-model="one.date"
          type="date"
          :label="`day ${i + 1} without classes`"
          :error-messages="errors(`holidays.${i}.date`)"
        />
        <v-text-field
          v-model="one.name"
          :label="`day ${i + 1}: called`"
          maxlength="60"
          :error-messages="errors(`holidays.${i}.name`)"
        />
        <v-text-btn :aria-label="`Take day ${i + 1} out`" @click="draft.holidays.splice(i, 1)"
          >Take it out</v-text-btn
        >
      </div>
      <v-text-btn @click="draft.holidays.push({ date: draft.start, name: '' })">Add a day</v-text-btn>
    </fieldset>
    <fieldset>
      <legend>Rules</legend>
      <div class="fields">
        <v-text-field
          v-model.number="draft.loadMost"
          type="number"
          step="0.5"
          label="most credits"
          :error-messages="errors('loadMost')"
        />
        <v-select v-model="draft.signOffPolicy" label="sign-off" :items="SIGN_OFFS" />
        <v-select v-model="draft.waitlistPolicy" label="a seat that comes free" :items="SERVES" />
        <v-text-field
          v-model.number="draft.offerHours"
          type="number"
          label="an offer stands, hours"
          :error-messages="errors('offerHours')"
        />
        <v-text-field
          v-model.number="draft.offerHoursNear"
          type="number"
          label="near the first day, hours"
          :error-messages="errors('offerHoursNear')"
        />
        <label class="check"
          ><v-checkbox-btn v-model="draft.arming" /> run sheets may run by themselves at the opening</label
        >
      </div>
      <v-textarea
        :model-value="draft.agreement ?? ''"
        label="terms of registration, accepted once by each student; none where empty"
        rows="3"
        auto-grow
        maxlength="8000"
        :error-messages="errors('agreement')"
        @update:model-value="draft.agreement = orNone($event)"
      />
    </fieldset>
    <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
    <p v-else-if="faults.size" class="stops" role="alert">
      {{ count(faults.size, 'field') }} to look at; nothing is saved yet.
    </p>
    <div class="acts">
      <v-btn type="submit" variant="flat" color="primary" :disabled="busy || !isChanged"
        >Save the dates</v-btn
      >
      <v-btn :disabled="busy || !isChanged" @click="draft = copyOf(plan)">Leave them as they were</v-btn>
    </div>
  </form>
</template>

<style scoped>
.term-form {
  padding: 12px 15px;
}
fieldset {
  border: 0;
  border-top: 1px solid var(--rule);
  padding: 10px 0 12px;
  margin: 0;
}
legend {
  float: left;
  width: 100%;
  padding: 0 0 8px;
  font-weight: 600;
}
legend + * {
  clear: both;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(178px, 1fr));
  gap: 10px 12px;
  align-items: start;
  margin-bottom: 10px;
}
.fields :deep(.v-input) {
  width: 100%;
  max-width: none;
}
.one {
  border-left: 2px solid var(--rule);
  padding-left: 10px;
  margin-bottom: 10px;
}
.day {
  align-items: center;
}
.check {
  display: flex;
  align-items: center;
  gap: 6px;
}
.acts {
  position: sticky;
  bottom: 0;
  display: flex;
  gap: 10px;
  padding: 10px 0;
  background: var(--card);
  border-top: 1px solid var(--rule);
}
@media (max-width: 900px) {
  /* The places stand at the foot of a narrow screen. */
  .acts {
    position: static;
  }
}
</style>
