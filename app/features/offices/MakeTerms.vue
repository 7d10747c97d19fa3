<script setup lang="ts">
import type { TermPlan, TermRow } from '#shared/offices/terms'
import { codeNextYear, likeNextYear } from '#shared/offices/terms'
import { dayText } from '#shared/when'

/** The next year from the last one: what its terms would be, before they are made. */
const props = defineProps<{ like: readonly TermRow[] }>()
const terms = useTerms()
const notice = useNotice()
const open = ref(false)
const heading = useId()
const { busy, problem, attempt } = useAttempt()
const plans = shallowRef<TermPlan[]>()
async function look() {
  open.value = true
  plans.value = undefined
  plans.value = await attempt(() => Promise.all(props.like.map((one) => terms.read(one.code))))
}
const made = computed(() =>
  (plans.value ?? []).map((was) => ({ code: codeNextYear(was.code), was, is: likeNextYear(was) }))
)
const names = computed(() => made.value.map((one) => one.is.name).join(', '))
const make = () =>
  attempt(async () => {
    const { terms: codes } = await terms.make(props.like.map((one) => one.code))
    notice.say(`${names.value}: made, not published.`)
    open.value = false
    await navigateTo(`/terms/${codes[0]}`)
  })
</script>

<template>
  <v-btn variant="flat" color="primary" @click="look">Make the next year</v-btn>
  <v-dialog v-model="open" max-width="720" :aria-labelledby="heading">
    <div class="card make">
      <h2 :id="heading">The next year, as the last one was</h2>
      <p class="quiet">
        All dates move by whole weeks, so that each stays on its weekday. Holidays on a fixed day of the month
        have to be looked at after.
      </p>
      <v-table v-if="made.length">
        <thead>
          <tr>
            <th scope="col">Term</th>
            <th scope="col">Classes</th>
            <th scope="col">as</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ code, was, is } in made" :key="code">
            <th scope="row">{{ is.name }}</th>
            <td>{{ dayText(is.start) }} to {{ dayText(is.end) }}</td>
            <td class="quiet">{{ was.name }}</td>
          </tr>
        </tbody>
      </v-table>
      <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
      <div class="acts">
        <v-btn variant="flat" color="primary" :disabled="busy || !made.length" @click="make"
          >Make {{ made.length === 1 ? names : 'them' }}</v-btn
        >
        <v-btn @click="open = false">Cancel</v-btn>
      </div>
    </div>
  </v-dialog>
</template>

<style scoped>
.make {
  padding: 18px;
  color: var(--ink);
}
.acts {
  display: flex;
  gap: 10px;
  margin-top: 12px;
}
</style>
