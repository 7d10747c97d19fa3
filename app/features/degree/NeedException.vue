<script setup lang="ts">
import type { NeedResult } from '#core/degree'
import { maybeCourseCode } from '#core/ids'
import { count, creditsText } from '#shared/words'

/** Exceptions where they apply; whoever may, grants and withdraws them here, with a reason. */
const props = defineProps<{ program: string; result: NeedResult }>()
const student = useStudent()
const advisingChanges = useAdvisingChanges()
const college = useCollege()
const granting = ref(false)
const kind = ref<'waiver' | 'substitution'>('waiver')
const course = ref('')
/** How much of it is waived; all of it where it is empty. */
const amount = ref('')
const reason = ref('')
const busy = ref(false)
const field = useId()

const standing = computed(() => {
  const { waived, lessened = [], substituted, measure } = props.result.need
  const amountOf = (amount: number) => (measure === 'credits' ? creditsText(amount) : count(amount, 'course'))
  return [
    ...(waived ? [{ grant: waived, text: 'Waived' }] : []),
    ...lessened.map((grant) => ({ grant, text: `${amountOf(grant.amount!)} of it waived` })),
    ...substituted.map(({ course: code, grant }) => ({ grant, text: `${code} taken for it` }))
  ]
})
/** Courses of the record that count nowhere come first: they are what is mostly substituted. */
const suggestions = computed(() => (student.reading?.outside ?? []).map((one) => one.attempt.course))
/** What is met, under way or mapped asks for no exception. */
const mayGrant = computed(
  () => student.mayGrant && props.result.state === 'needed' && !props.result.need.waived
)
const code = computed(() => maybeCourseCode(course.value))
const why = computed(() => {
  if (
    kind.value === 'substitution' &&
    !(code.value && college.catalogContext?.catalog.maybeCourse(code.value))
  )
    return 'Name the course, such as ENVI 310.'
  if (kind.value === 'waiver' && part.value === null)
    return `Say how many ${props.result.need.measure} are waived, fewer than ${props.result.need.amount}; nothing for all.`
  return reason.value.trim().length < 5 ? 'Say why, in a few words.' : ''
})
/** Undefined for all of it; null where that is no part of it. */
const part = computed(() => {
  const text = amount.value.trim()
  if (!mayGrant.value || !text) return undefined
  const { measure, amount: most } = props.result.need
  const said = Number(text.replace(',', '.'))
  const isPart = said > 0 && said < most && (measure === 'credits' || Number.isInteger(said))
  return isPart ? said : null
})

/** What was asked for here, but for what is granted: that stands as an exception. */
const asked = computed(() =>
  (student.view?.requests ?? []).filter(
    (one) => one.program === props.program && one.need === props.result.need.id && one.state !== 'given'
  )
)
const swaps = computed(() => asked.value.flatMap((one) => (one.kind === 'substitution' ? one.course! : [])))
const about = computed(() => ({ program: props.program, need: props.result.need.id }))
/** A student asks for what an advisor may grant. */
const mayAsk = computed(() => student.own && props.result.state === 'needed' && !props.result.need.waived)
async function ask() {
  busy.value = true
  const said = { ...about.value, reason: reason.value.trim() }
  const done = await advisingChanges.askFor(
    kind.value === 'waiver'
      ? { kind: 'need', ...said }
      : { kind: 'substitution', ...said, course: code.value! }
  )
  busy.value = false
  if (!done) return
  granting.value = false
  reason.value = course.value = ''
}

async function grant() {
  busy.value = true
  const common = { program: props.program, need: props.result.need.id, reason: reason.value.trim() }
  const done = await advisingChanges.grantException(
    kind.value === 'waiver'
      ? { kind: 'waiver', ...common, ...(part.value && { amount: part.value }) }
      : { kind: 'substitution', course: code.value!, ...common }
  )
  busy.value = false
  if (!done) return
  granting.value = false
  reason.value = course.value = amount.value = ''
}
</script>

<template>
  <div v-if="standing.length || mayGrant || mayAsk || asked.length" class="exception">
    <ExceptionGiven
      v-for="{ grant: one, text } in standing"
      :key="one.id"
      class="given"
      :grant="one"
      :text="text"
      :of="result.need.title"
    />
    <p v-if="asked.some((one) => one.kind === 'need')" class="small no-print">
      <RequestAsk :said="{ kind: 'need', ...about }" />
    </p>
    <p v-for="one in [...new Set(swaps)]" :key="one" class="small no-print">
      {{ one }}: <RequestAsk :said="{ kind: 'substitution', ...about, course: one }" />
    </p>
    <v-text-btn
      v-if="(mayGrant || mayAsk) && !granting"
      class="small no-print ask"
      :aria-label="`${mayGrant ? 'Grant' : 'Ask for'} an exception for ${result.need.title}`"
      @click="granting = true"
    >
      {{ mayGrant ? 'Grant an exception' : 'Ask for an exception' }}
    </v-text-btn>
    <form
      v-if="granting"
      class="form no-print"
      @submit.prevent="mayGrant ? grant() : ask()"
      @keydown.esc="granting = false"
    >
      <fieldset>
        <legend class="visually-hidden">Kind of exception</legend>
        <label><v-radio v-model="kind" value="waiver" /> not asked for (waiver)</label>
        <label><v-radio v-model="kind" value="substitution" /> met by another course</label>
      </fieldset>
      <label v-if="kind === 'waiver' && mayGrant && result.need.amount > 1">
        {{ result.need.measure === 'credits' ? 'Credits of it' : 'Courses of it' }}
        <v-text-field v-model="amount" class="part" inputmode="decimal" maxlength="5" placeholder="all" />
      </label>
      <label v-if="kind === 'substitution'">
        Course
        <v-text-field v-model="course" :list="`${field}-list`" maxlength="12" size="10" />
        <datalist :id="`${field}-list`">
          <option v-for="one in suggestions" :key="one" :value="one" />
        </datalist>
      </label>
      <label class="reason">Reason <v-text-field v-model="reason" maxlength="400" /></label>
      <v-btn type="submit" size="small" :disabled="why !== '' || busy" :aria-describedby="`${field}-why`">{{
        mayGrant ? 'Grant' : 'Ask'
      }}</v-btn>
      <v-text-btn type="button" @click="granting = false">Cancel</v-text-btn>
      <span :id="`${field}-why`" class="quiet small" role="status">{{ why }}</span>
    </form>
  </div>
</template>

<style scoped>
.exception {
  grid-column: 1 / -1;
}
.given {
  margin: 2px 0;
  border-left: 3px double var(--hue);
  padding-left: 9px;
}
.form {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  padding: 6px 0;
}
.ask {
  font-weight: 400;
}
.part {
  width: 84px;
}
fieldset {
  border: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}
.reason {
  flex: 1 1 260px;
  display: flex;
  align-items: center;
  gap: 6px;
}
.reason .v-input {
  flex: 1;
}
</style>
