<script setup lang="ts">
import type { Refusal } from '#core/findings'
import { OVERRIDE_WORDS } from '#shared/offices/placing'
import type { LineAction, Outcome } from '#shared/registration/outcomes'
import type { Receipt } from '#shared/registration/responses'
import { ago, instantText } from '#shared/when'
import { count } from '#shared/words'
import { refusalText, wayOut } from '#shared/registration/texts'
import { sectionName } from '#shared/week/texts'

/** What a run did, line by line, and what to do about each that did not go through. */
const props = defineProps<{
  receipt: Receipt
  earlier: Receipt[]
  /** It was made on this page, just now: it stands open. */
  fresh: boolean
}>()
const open = ref(props.fresh)
/** An earlier one that is looked at in place of the newest. */
const chosen = ref<number>()
// Each by itself: a sheet that is read anew, with the same receipt, folds nothing.
watch([() => props.receipt.id, () => props.fresh], ([, fresh]) => {
  open.value = fresh
  chosen.value = undefined
})
const all = computed(() => [props.receipt, ...props.earlier])
const shown = computed(() => all.value.find((one) => one.id === chosen.value) ?? props.receipt)
const others = computed(() => all.value.filter((one) => one.id !== shown.value.id))
const student = useStudent()
const college = useCollege()
const clock = useClock()

const OUTCOMES: Record<Exclude<Outcome, 'refused'>, string> = {
  waiting: 'not tried yet',
  registered: 'registered',
  exchanged: 'exchanged',
  inLine: 'in line',
  dropped: 'dropped',
  released: 'released',
  left: 'line left',
  declined: 'declined',
  unsettled: 'no section picked',
  notTried: 'not tried'
}
const WENT_THROUGH = new Set<Outcome>([
  'registered',
  'exchanged',
  'inLine',
  'dropped',
  'released',
  'left',
  'declined'
])
const REFUSED: Record<LineAction, string> = {
  register: 'not registered',
  drop: 'not dropped',
  leave: 'not left',
  offer: 'not taken',
  release: 'kept',
  giveUp: 'kept'
}
const wordOf = ({ outcome, action }: Receipt['lines'][number]) =>
  outcome === 'refused' ? REFUSED[action] : OUTCOMES[outcome]
const ASKED: Record<LineAction, string> = {
  register: '',
  drop: 'to drop',
  leave: 'to leave the line',
  offer: 'the offered seat',
  release: '',
  giveUp: 'given up for another line'
}
/** What a line that went through came to beyond its word. */
function cameTo({ outcome, place, mark, action, refusals }: Receipt['lines'][number]): string {
  if (outcome === 'inLine') return `You are number ${place} in line. A place in line is not a seat.`
  if (outcome === 'dropped')
    return mark
      ? `The seat is given back; a ${mark} stays on your record.`
      : 'The seat is given back; your record keeps no trace of it.'
  if (outcome === 'released' && refusals.length) return 'The seat is given back, with all that it cost.'
  if (outcome === 'released') return 'It was not paid for by the due date, so the seat was given back.'
  if (outcome === 'declined') return 'The seat goes to the next in line, and you have left it.'
  if (outcome === 'left') return 'You gave up your place.'
  return outcome === 'refused' && action === 'drop' ? 'You keep the seat.' : ''
}
const through = computed(() => shown.value.lines.filter((line) => WENT_THROUGH.has(line.outcome)).length)
/** By number, with the code, as far as the sections are known; a code says what it was for good. */
const named = (codes: readonly string[]) =>
  codes
    .map((code) => {
      const section = student.view?.sections.find((one) => one.code === code)
      return section ? `${sectionName(section)} (${code})` : code
    })
    .join(' + ')
const place = (name: string) => `/students/${student.view?.student.id}/${name}`
const wayTo = (refusal: Refusal) => place(wayOut(refusal) === 'Pick another section' ? 'week' : 'route')
</script>

<template>
  <section class="card receipt" aria-labelledby="receipt-title" aria-live="polite">
    <h2 id="receipt-title">
      Receipt {{ shown.id }}
      <span class="quiet small"
        >{{ instantText(shown.at, college.zone) }} · {{ shown.by ?? 'by the rule of the term'
        }}{{ shown.armed ? ', run by itself at the opening' : '' }}</span
      >
    </h2>
    <p class="sum">
      {{ count(through, 'line') }} of {{ shown.lines.length }} went through{{
        shown.whole ? ', all or nothing' : ''
      }}{{ shown.ended ? '' : ' so far; the run is under way' }}.
      <template v-if="shown.consent">Made for the student, who agreed: “{{ shown.consent }}”</template>
      <template v-if="shown.setAside?.length">
        Set aside by the office: {{ shown.setAside.map((one) => OVERRIDE_WORDS[one]).join(', ') }}.</template
      >
      <v-text-btn :aria-expanded="open" @click="open = !open">{{ open ? 'Fold it' : 'Read it' }}</v-text-btn>
    </p>
    <ul v-if="open">
      <li v-for="line in shown.lines" :key="`${line.action} ${line.course}`">
        <strong>{{ line.course }}</strong> <span class="quiet">{{ named(line.sections) }}</span>
        <span v-if="ASKED[line.action]" class="quiet">{{ ASKED[line.action] }}</span>
        <span v-if="line.credits !== null" class="quiet">{{ count(line.credits, 'credit') }}</span>
        <span class="outcome" :class="line.outcome">{{ wordOf(line) }}</span>
        <span v-if="line.gaveBack.length" class="reason">{{ named(line.gaveBack) }} is given back.</span>
        <span v-if="line.fallback" class="reason">{{
          line.insteadOf
            ? `Fallback ${line.fallback} was taken: ${line.course} in place of ${line.insteadOf}, which did not go through.`
            : `Fallback ${line.fallback} was taken: the first choice did not go through.`
        }}</span>
        <span v-if="cameTo(line)" class="reason">{{ student.say(cameTo(line)) }}</span>
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
    <p v-if="open && others.length" class="quiet small">
      Other receipts of this term:
      <template v-for="(one, i) in others" :key="one.id"
        >{{ i ? ' · ' : ''
        }}<v-text-btn @click="chosen = one.id"
          >{{ one.id }}, {{ ago(one.at, clock.minute, college.zone) }}</v-text-btn
        ></template
      >
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
.sum {
  display: inline-block;
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
.outcome.exchanged,
.outcome.dropped,
.outcome.left,
.outcome.declined {
  border-color: var(--dusk);
  background: var(--dusk);
  color: var(--on-dusk);
}
.outcome.unsettled,
.outcome.inLine,
.outcome.waiting,
.outcome.notTried {
  border: 1px dashed var(--ember);
  color: var(--ember);
}
.reason {
  display: block;
}
</style>
