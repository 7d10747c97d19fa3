<script setup lang="ts">
import type { Cents } from '#core/charges'
import { dayNumber } from '#core/time'
import type { LedgerEntry } from '#shared/charges/responses'
import { entryText, itemText, moneyText } from '#shared/charges/texts'
import { dayText, instantText, shortInstant } from '#shared/when'

/** What the term costs: owed and until when, what it is for, and paying it; before a run, what the run comes to. */
defineProps<{
  statement: readonly LedgerEntry[]
  /** What is charged in all once the chosen lines have gone through. */
  expected: Cents
  /** Whether lines are chosen that would change it. */
  pending: boolean
}>()
const emit = defineEmits<{ paid: [] }>()
const student = useStudent()
const college = useCollege()
const standing = useStanding()
const { prices, account, owed, open, lostOn } = useTermMoney()
const { pay, says } = usePaying(() => Promise.resolve(emit('paid')))

const term = computed(() => standing.term!)
const isPast = computed(() => dayNumber(college.today) > dayNumber(term.value.paymentDueOn))
const part = ref(false)
const reading = ref(false)
const problem = ref<string>()

async function payAll() {
  problem.value = undefined
  try {
    await pay(open.value)
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    problem.value = error.message
  }
}
</script>

<template>
  <section v-if="prices && (account || pending)" class="card account" aria-labelledby="owed-title">
    <template v-if="account">
      <div class="sum">
        <div>
          <h3 id="owed-title">
            {{
              owed > 0 ? `Owed ${isPast ? 'since' : 'by'} ${dayText(term.paymentDueOn)}` : 'Nothing is owed'
            }}
          </h3>
          <p class="big display">{{ moneyText(Math.max(0, owed)) }}</p>
        </div>
        <div v-if="student.own && open > 0" class="keys">
          <v-btn :aria-expanded="part" @click="part = !part">Pay a part</v-btn>
          <v-btn variant="flat" color="primary" @click="payAll">Pay {{ moneyText(open) }}</v-btn>
        </div>
      </div>
      <LazyPayPart v-if="part && open > 0" :pay="pay" @done="part = false" />
      <p v-if="says" role="status">{{ says }}</p>
      <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
      <dl>
        <template v-for="one in account.charges" :key="one.item">
          <dt>{{ itemText(one.item) }}</dt>
          <dd>{{ moneyText(one.amount) }}</dd>
        </template>
        <template v-if="account.paid">
          <dt>Paid</dt>
          <dd>{{ moneyText(-account.paid) }}</dd>
        </template>
      </dl>
      <p v-if="account.asked" class="quiet">
        {{ moneyText(account.asked) }} is with the cashier, who has not answered yet.
      </p>
      <p v-if="owed < 0">{{ moneyText(-owed) }} more is paid than is charged.</p>
      <p v-if="account.releasedAt" :class="standing.held.length ? 'quiet' : 'stops'">
        Seats that were not paid for were given back on {{ instantText(account.releasedAt, college.zone) }}.
      </p>
      <p v-if="lostOn" class="warn">
        Seats that are not paid for by then are given back on {{ dayText(lostOn) }}.
      </p>
    </template>
    <h3 v-else id="owed-title" class="ahead">After the run</h3>
    <p v-if="pending">
      <template v-if="account">With what is chosen, {{ moneyText(expected) }} is charged in all.</template>
      <template v-else
        ><strong>{{ moneyText(expected) }}</strong> if all that is chosen goes through, due
        {{ dayText(term.paymentDueOn) }}.
        <template v-if="prices.releasesUnpaid"
          >Seats that are not paid for are given back, after two notices.</template
        ></template
      >
    </p>
    <template v-if="statement.length">
      <v-text-btn :aria-expanded="reading" @click="reading = !reading">{{
        reading ? 'Fold the statement' : 'Read the statement'
      }}</v-text-btn>
      <ol v-if="reading" class="statement">
        <li v-for="(entry, i) in statement" :key="i">
          <span
            >{{ entryText(entry) }}
            <span class="quiet small"
              >{{ shortInstant(entry.at, college.zone) }}, {{ entry.by ?? 'by the rule of the term' }}</span
            ></span
          >
          <span>{{ moneyText(entry.kind === 'charge' ? entry.amount : -entry.amount) }}</span>
        </li>
      </ol>
    </template>
  </section>
</template>

<style scoped>
.account {
  padding: 11px 15px;
}
.account p {
  margin: 5px 0 0;
}
.sum {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  justify-content: space-between;
  gap: 8px;
}
.account h3 {
  font-size: 13.5px;
  font-weight: 400;
}
.account .ahead {
  font-weight: 650;
}
.account .big {
  margin: 0;
  font-size: 27px;
  font-weight: 650;
  line-height: 1.15;
}
.keys {
  display: flex;
  gap: 8px;
}
.part label {
  flex: 1;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  margin: 8px 0 0;
}
dt,
dd {
  margin: 0;
  padding: 3px 0;
  border-top: 1px solid var(--rule);
}
dd,
.statement li > :last-child {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.warn {
  color: var(--ember);
  font-weight: 650;
}
.statement {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
.statement li {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  padding: 3px 0;
  border-top: 1px solid var(--rule);
}
</style>
