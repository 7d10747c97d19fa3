<script setup lang="ts">
import type { TermCode } from '#core/ids'
import { dayNumber } from '#core/time'
import { owedOf } from '#shared/charges/responses'
import { moneyText } from '#shared/charges/texts'
import { dayText } from '#shared/when'

/** What is owed and what was paid, term by term, the last one first. */
const student = useStudent()
const college = useCollege()
const rows = computed(() =>
  student
    .view!.accounts.flatMap((account) => {
      const term = college.catalogContext!.terms.find((one) => one.code === account.term)
      if (!term || (!account.charges.length && !account.paid)) return []
      const isPast = dayNumber(college.today) > dayNumber(term.paymentDueOn)
      return [{ term, account, owed: owedOf(account), isPast }]
    })
    .sort((a, b) => dayNumber(b.term.start) - dayNumber(a.term.start))
)
/** Where it is paid. */
function payFor(term: TermCode) {
  student.chooseTerm(term)
  void navigateTo(`/students/${student.view!.student.id}/register`)
}
const stateOf = ({ owed, isPast, term }: (typeof rows.value)[number]) => {
  if (owed > 0) return `${moneyText(owed)} owed ${isPast ? 'since' : 'by'} ${dayText(term.paymentDueOn)}`
  return owed < 0 ? `${moneyText(-owed)} paid too much` : 'nothing owed'
}
</script>

<template>
  <section class="card" aria-labelledby="accounts-title">
    <h2 id="accounts-title">Account</h2>
    <p v-if="!rows.length" class="quiet">Nothing was charged yet.</p>
    <ul v-else>
      <li v-for="row in rows" :key="row.term.code">
        <strong>{{ row.term.name }}</strong>
        <span :class="{ stops: row.owed > 0 && row.isPast }">{{ stateOf(row) }}</span>
        <span class="quiet"
          >{{ moneyText(row.account.paid) }} paid<template v-if="row.account.asked"
            >, {{ moneyText(row.account.asked) }} with the cashier</template
          ></span
        >
        <v-text-btn
          v-if="student.own && row.owed > 0 && student.alive.some((one) => one.term.code === row.term.code)"
          @click="payFor(row.term.code)"
          >Pay it on Register</v-text-btn
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  padding: 10px 14px;
}
h2,
p {
  margin: 0;
}
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
li {
  display: grid;
  justify-items: start;
  padding: 6px 0;
}
li + li {
  border-top: 1px solid var(--rule);
}
</style>
