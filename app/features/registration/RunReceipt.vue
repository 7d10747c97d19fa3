<script setup lang="ts">
import type { Refusal } from '#core/findings'
import type { Outcome } from '#shared/registration/outcomes'
import type { Receipt } from '#shared/registration/responses'
import { ago, instantText } from '#shared/when'
import { count } from '#shared/words'
import { refusalText, wayOut } from '#shared/registration/texts'
import { sectionName } from '#shared/week/texts'

/** What a run did, line by line, and what to do about each that did not go through. */
const props = defineProps<{ receipt: Receipt; earlier: Receipt[] }>()
const student = useStudent()
const college = useCollege()
const clock = useClock()

const OUTCOMES: Record<Outcome, string> = {
  waiting: 'not tried yet',
  registered: 'registered',
  exchanged: 'exchanged',
  refused: 'not registered',
  unsettled: 'no section picked',
  notTried: 'not tried'
}
const WENT_THROUGH = new Set<Outcome>(['registered', 'exchanged'])
const through = computed(() => props.receipt.lines.filter((line) => WENT_THROUGH.has(line.outcome)).length)
/** By number, with the code, as far as the sections are known; a code says what it was for good. */
const named = (codes: readonly string[]) =>
  codes
    .map((code) => {
      const section = student.picture?.sections.find((one) => one.code === code)
      return section ? `${sectionName(section)} (${code})` : code
    })
    .join(' + ')
const place = (name: string) => `/students/${student.picture?.student.id}/${name}`
const wayTo = (refusal: Refusal) => place(wayOut(refusal) === 'Pick another section' ? 'week' : 'route')
</script>

<template>
  <section class="card receipt" aria-labelledby="receipt-title" aria-live="polite">
    <h2 id="receipt-title">
      Receipt {{ receipt.id }}
      <span class="quiet small">{{ instantText(receipt.at, college.zone) }} · {{ receipt.by }}</span>
    </h2>
    <p>
      {{ count(through, 'line') }} of {{ receipt.lines.length }} went through{{
        receipt.ended ? '' : ' so far; the run is under way'
      }}.
    </p>
    <ul>
      <li v-for="line in receipt.lines" :key="line.course">
        <strong>{{ line.course }}</strong> <span class="quiet">{{ named(line.sections) }}</span>
        <span class="outcome" :class="line.outcome">{{ OUTCOMES[line.outcome] }}</span>
        <span v-if="line.gaveBack.length" class="reason">{{ named(line.gaveBack) }} is given back.</span>
        <span v-for="(refusal, i) in line.refusals" :key="i" class="reason">
          {{ student.say(refusalText(refusal, college.zone)) }}
          <NuxtLink v-if="wayOut(refusal)" class="textlink" :to="wayTo(refusal)">{{
            wayOut(refusal)
          }}</NuxtLink>
        </span>
        <span v-if="line.outcome === 'notTried'" class="reason">
          {{ student.say('This line was not tried to its end. Nothing was registered or given up for it.') }}
        </span>
        <span v-if="line.outcome === 'unsettled'" class="reason">
          Nothing was tried for it. <NuxtLink class="textlink" :to="place('week')">Pick a section</NuxtLink>
        </span>
      </li>
    </ul>
    <p v-if="earlier.length" class="quiet small">
      Earlier receipts: {{ earlier.map((r) => `${r.id}, ${ago(r.at, clock.now, college.zone)}`).join(' · ') }}
    </p>
  </section>
</template>

<style scoped>
.receipt {
  padding: 12px 15px;
  margin-bottom: 12px;
  border-left: 6px solid var(--dusk);
}
.receipt p {
  margin: 4px 0;
}
.receipt ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.receipt li {
  padding: 4px 0;
  border-top: 1px solid var(--rule);
}
.outcome {
  display: inline-block;
  border-radius: 5px;
  padding: 0 7px;
  border: 1px solid var(--rowan);
  color: var(--rowan);
  font-weight: 650;
  font-size: 12.5px;
}
.outcome.registered,
.outcome.exchanged {
  border-color: var(--dusk);
  background: var(--dusk);
  color: var(--on-dusk);
}
.outcome.unsettled,
.outcome.waiting,
.outcome.notTried {
  border: 1px dashed var(--ember);
  color: var(--ember);
}
.reason {
  display: block;
}
</style>
