<script setup lang="ts">
import { centsOf, tuitionFor, type Payer } from '#core/charges'
import { moneyText } from '#shared/charges/texts'
import { pricesBody, type SaidPrices } from '#shared/offices/prices'
import type { TermPlan } from '#shared/offices/terms'
import { count } from '#shared/words'

/** What a term costs: tuition by level and residency in steps of credits, and fees. It stays once seats are held. */
const props = defineProps<{ plan: TermPlan }>()
const emit = defineEmits<{ saved: [] }>()
const terms = useTerms()
const notice = useNotice()

const PAYERS: readonly (Payer & { title: string })[] = [
  { level: 'undergraduate', residency: 'resident', title: 'Undergraduate, resident' },
  { level: 'undergraduate', residency: 'nonResident', title: 'Undergraduate, from elsewhere' },
  { level: 'graduate', residency: 'resident', title: 'Graduate, resident' },
  { level: 'graduate', residency: 'nonResident', title: 'Graduate, from elsewhere' }
]
/** Amounts as they are typed: in whole units. */
interface Draft {
  rates: { from: number; flat: number; perCredit: number }[][]
  fees: { title: string; amount: number }[]
  releasesUnpaid: boolean
}
const draftOf = (prices: SaidPrices | null): Draft => ({
  rates: PAYERS.map(({ level, residency }) => {
    const rate = prices?.tuition.find((one) => one.level === level && one.residency === residency)
    return (rate?.bands ?? []).map(({ from, flat, perCredit }) => ({
      ...{ from, flat: flat / 100, perCredit: perCredit / 100 }
    }))
  }),
  fees: (prices?.fees ?? []).map(({ title, amount }) => ({ title, amount: amount / 100 })),
  releasesUnpaid: prices?.releasesUnpaid ?? false
})
const draft = ref(draftOf(props.plan.prices))
// Read anew after the dates were saved, the same prices are no reason to lose what is typed.
watch(
  () => JSON.stringify(props.plan.prices),
  () => (draft.value = draftOf(props.plan.prices))
)
/** What is typed as prices; nothing named is nothing charged. */
const said = computed((): SaidPrices | null => {
  const { rates, fees, releasesUnpaid } = draft.value
  const tuition = PAYERS.flatMap(({ level, residency }, i) =>
    rates[i]!.length
      ? [
          {
            ...{ level, residency },
            bands: rates[i]!.map(({ from, flat, perCredit }) => ({
              ...{ from, flat: centsOf(flat), perCredit: centsOf(perCredit) }
            }))
          }
        ]
      : []
  )
  if (!tuition.length && !fees.length) return null
  return {
    tuition,
    fees: fees.map(({ title, amount }) => ({ title, amount: centsOf(amount) })),
    releasesUnpaid
  }
})
const isChanged = computed(() => JSON.stringify(said.value) !== JSON.stringify(props.plan.prices))
const check = useDraftCheck(pricesBody, () => ({ version: props.plan.version, prices: said.value }))
const { busy, problem, faults } = check
const STEP_FIELDS = [
  { key: 'from', step: 0.5, label: 'from so many credits' },
  { key: 'flat', step: 0.01, label: 'in all' },
  { key: 'perCredit', step: 0.01, label: 'and for each credit beyond' }
] as const
/** The place of a rate among those that are sent. */
const sentAt = (i: number) => draft.value.rates.slice(0, i).filter((bands) => bands.length).length
const errors = (path: string) => check.errors(`prices.${path}`)
const EXAMPLES = [3, 6, 12, 15, 18]
const examples = (i: number) => {
  const { level, residency } = PAYERS[i]!
  const rate = said.value?.tuition.find((one) => one.level === level && one.residency === residency)
  return (
    rate && EXAMPLES.map((credits) => `${credits} cr ${moneyText(tuitionFor(rate, credits))}`).join(' · ')
  )
}
function addStep(i: number) {
  const bands = draft.value.rates[i]!
  const last = bands.at(-1)
  bands.push({ from: last ? last.from + 1 : 0, flat: last?.flat ?? 0, perCredit: last?.perCredit ?? 0 })
}
async function save() {
  const done = await check.send((body) => terms.price(props.plan.code, body))
  if (!done) {
    if (problem.value.includes('meanwhile')) emit('saved')
    return
  }
  notice.say(said.value ? `${props.plan.name}: prices saved.` : `Nothing is charged in ${props.plan.name}.`)
  emit('saved')
}
</script>

<template>
  <form class="card prices" novalidate aria-label="Prices" @submit.prevent="save">
    <h2>Prices</h2>
    <p v-if="plan.held" class="quiet">
      {{ count(plan.held, 'student') }} hold seats: what the term costs stays as it is.
    </p>
    <fieldset :disabled="plan.held > 0">
      <legend class="visually-hidden">Tuition</legend>
      <section v-for="({ title }, i) in PAYERS" :key="title" :aria-label="title">
        <h3>
          {{ title }} <span v-if="!draft.rates[i]!.length" class="quiet small">nothing is charged</span>
        </h3>
        <div v-for="(band, n) in draft.rates[i]" :key="n" class="step">
          <v-text-field
            v-for="{ key, step, label } in STEP_FIELDS"
            :key="key"
            v-model.number="band[key]"
            type="number"
            :step="step"
            :label="`step ${n + 1}: ${label}`"
            :error-messages="errors(`tuition.${sentAt(i)}.bands.${n}.${key}`)"
          />
          <v-text-btn :aria-label="`Take step ${n + 1} out`" @click="draft.rates[i]!.splice(n, 1)"
            >Take it out</v-text-btn
          >
        </div>
        <p v-if="examples(i)" class="quiet small" role="status">{{ examples(i) }}</p>
        <v-text-btn v-if="!plan.held" @click="addStep(i)">{{
          draft.rates[i]!.length ? 'Add a step' : 'Set a price'
        }}</v-text-btn>
      </section>
      <section aria-label="Fees of everybody">
        <h3>Fees of everybody who holds a seat</h3>
        <div v-for="(fee, n) in draft.fees" :key="n" class="step">
          <v-text-field
            v-model="fee.title"
            maxlength="60"
            :label="`fee ${n + 1}: called`"
            :error-messages="errors(`fees.${n}.title`)"
          />
          <v-text-field
            v-model.number="fee.amount"
            type="number"
            step="0.01"
            :label="`fee ${n + 1}: amount`"
            :error-messages="errors(`fees.${n}.amount`)"
          />
          <v-text-btn :aria-label="`Take fee ${n + 1} out`" @click="draft.fees.splice(n, 1)"
            >Take it out</v-text-btn
          >
        </div>
        <v-text-btn v-if="!plan.held" @click="draft.fees.push({ title: '', amount: 0 })"
          >Add a fee</v-text-btn
        >
      </section>
      <label class="check"
        ><v-checkbox-btn v-model="draft.releasesUnpaid" /> seats that are not paid for by
        {{ plan.paymentDue }} are given back</label
      >
    </fieldset>
    <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
    <p v-else-if="faults.size" class="stops" role="alert">
      {{ count(faults.size, 'field') }} to look at; nothing is saved yet.
    </p>
    <div v-if="!plan.held" class="acts">
      <v-btn type="submit" variant="flat" color="primary" :disabled="busy || !isChanged"
        >Save the prices</v-btn
      >
      <v-btn :disabled="busy || !isChanged" @click="draft = draftOf(plan.prices)"
        >Leave them as they were</v-btn
      >
    </div>
  </form>
</template>

<style scoped>
.prices {
  padding: 12px 15px;
  margin-top: 14px;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
}
section {
  border-top: 1px solid var(--rule);
  padding: 8px 0;
}
h3 {
  margin: 0 0 10px;
}
p {
  margin: 2px 0 6px;
}
.step {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr)) auto;
  gap: 8px 12px;
  align-items: start;
  margin-bottom: 8px;
}
.step :deep(.v-input) {
  width: 100%;
  max-width: none;
}
.check {
  display: flex;
  align-items: center;
  gap: 6px;
}
.acts {
  display: flex;
  gap: 10px;
  margin-top: 8px;
}
@media (max-width: 720px) {
  .step {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
