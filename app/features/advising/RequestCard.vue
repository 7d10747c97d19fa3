<script setup lang="ts">
import { ruleOf } from '#core/requisites'
import { DECIDER_WORDS, isPermission, type Decider, type DeskRequest } from '#shared/advising/asking'
import { ruleSentence, wouldDo } from '#shared/advising/askingTexts'
import { ruleText } from '#shared/catalog/texts'
import { refusalText } from '#shared/registration/texts'
import { aboutThem } from '#shared/voice'
import { ago, deadlineText } from '#shared/when'
import { count } from '#shared/words'

/**
 * A request, or several that are alike: the rule it would set aside, what each student shows, what it would do, and the
 * answer. Keys while the focus is on it: g grants, d declines, f hands on.
 */
const props = defineProps<{ requests: readonly DeskRequest[] }>()
const staff = useStaff()
const college = useCollege()
const clock = useClock()
const until = ref('')
const words = ref('')
const saying = ref(false)
/** The program that is right, where that is asked about. */
const version = ref<number | null>(null)
const leftOut = ref(new Set<number>())
const { busy, once } = useOnce()

const first = computed(() => props.requests[0]!)
const isWaiting = computed(() => first.value.state === 'asked')
const chosen = computed(() => props.requests.filter((one) => !leftOut.value.has(one.id)))
const sentence = computed(() => ruleSentence(first.value))
/** What it would do is known while it waits; what it did is not told here. */
const does = computed(() =>
  isWaiting.value ? wouldDo(first.value, Math.max(1, chosen.value.length)) : undefined
)
const names = computed(() => {
  const [one, ...others] = props.requests
  return others.length ? count(props.requests.length, 'student') : one!.student.name
})
/** Another program is given only once it is said which. */
const isSettled = computed(() => first.value.kind !== 'program' || version.value !== null)
/** Instructors and departments see nothing else of a record. */
const mayOpen = computed(() => first.value.as === 'programAdvisor' || first.value.as === 'registrar')
/** What the record of the student shows of it. */
const placeOf = (one: DeskRequest) =>
  `/students/${one.student.id}/${isPermission(one.kind) ? 'register' : one.kind === 'waiver' ? 'route' : 'degree'}`
const seats = computed(() => (isWaiting.value && first.value.kind === 'full' ? first.value.seats : null))
const load = computed(() => {
  const { against } = first.value
  return against?.code === 'load' || against?.code === 'conditionCredits' ? against : undefined
})
/** The section that is asked for, and what it clashes with. */
const HUES = [2, 5]
const hueIn = (course: string) => HUES[course === first.value.course ? 0 : 1]!
/** What a course asks for that is to be taken without it. */
const asks = computed(() => {
  const { kind, course } = first.value
  const text =
    kind === 'waiver' && course ? college.catalogContext?.catalog.maybeCourse(course)?.prerequisite : ''
  const rule = text ? ruleOf(text) : undefined
  return rule && `${course} asks for ${ruleText(rule)}.`
})
const when = (at: number) => ago(at, clock.minute, college.zone)
const to = computed<Decider>(() =>
  first.value.others.includes('registrar') ? 'registrar' : (first.value.others[0] ?? 'registrar')
)

function toggle(id: number, isChosen: boolean) {
  const next = new Set(leftOut.value)
  if (isChosen) next.delete(id)
  else next.add(id)
  leftOut.value = next
}
const said = () => words.value.trim() || null
const answer = (given: 'given' | 'declined') =>
  chosen.value.length &&
  once(() =>
    staff.answer(
      chosen.value.map((one) => one.id),
      {
        answer: given,
        until: given === 'given' ? until.value || null : null,
        version: given === 'given' ? version.value : null,
        words: said()
      }
    )
  )
const handOn = (whom: Decider) =>
  once(async () => {
    for (const { id } of chosen.value)
      if (!(await staff.handOn(id, { to: whom, words: said() }))) return false
    return true
  })
function onKey(event: KeyboardEvent) {
  if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey || event.altKey) return
  const act = {
    g: () => first.value.mayDecide && isSettled.value && answer('given'),
    d: () => first.value.mayDecide && answer('declined'),
    f: () => isWaiting.value && first.value.others.length && handOn(to.value)
  }[event.key]
  if (!act) return
  event.preventDefault()
  // g begins the way to a place elsewhere on the page.
  event.stopPropagation()
  act()
}
</script>

<template>
  <article
    class="request"
    tabindex="0"
    :aria-label="`${names}, ${first.course ?? first.need?.title ?? first.onRecord?.title}`"
    @keydown="onKey"
  >
    <div>
      <p class="rule">
        {{ sentence.before }} <strong>{{ names }}</strong> {{ sentence.after }}
        <span class="stops">{{ sentence.although }}</span>.
      </p>
      <p class="quiet small">
        {{ first.term ? `${college.termName(first.term)} · ` : '' }}asked {{ when(first.askedAt) }}
      </p>
      <p v-for="(step, n) in first.handedOn" :key="n" class="quiet small">
        handed on by {{ step.by }}, {{ when(step.at) }}{{ step.words ? `: “${step.words}”` : '' }}
      </p>
      <p v-if="isWaiting" class="small">
        <template v-if="first.mayDecide"
          >You decide, <strong>as {{ DECIDER_WORDS[first.as] }}</strong></template
        >
        <template v-else>Others decide this. Hand it on, with your word.</template>
      </p>
    </div>
    <div>
      <p v-for="one in requests" :key="one.id" class="shows">
        <v-checkbox-btn
          v-if="requests.length > 1 && isWaiting"
          :model-value="!leftOut.has(one.id)"
          :aria-label="`Answer ${one.student.name}`"
          @update:model-value="toggle(one.id, $event === true)"
        />
        <span>
          <template v-if="requests.length > 1 || mayOpen">
            <NuxtLink v-if="mayOpen" class="textlink" :to="placeOf(one)">{{ one.student.name }}</NuxtLink>
            <strong v-else>{{ one.student.name }}</strong>:
          </template>
          “{{ one.reason }}”
        </span>
      </p>
      <p v-if="first.against" class="quiet small">
        {{ aboutThem(refusalText(first.against, college.zone)) }}
      </p>
    </div>
    <div>
      <ProgramChange
        v-if="first.kind === 'program' && isWaiting && first.mayDecide"
        v-model="version"
        :request="first.id"
      />
      <p v-if="does" class="small does">{{ does }}</p>
      <p v-if="asks" class="small">{{ asks }}</p>
      <SeatsDrawn v-if="seats" :seats="seats" :more="Math.max(1, chosen.length)" />
      <p v-else-if="load" class="load" aria-hidden="true">
        <span :style="{ flexGrow: load.most }" /><i :style="{ flexGrow: load.credits - load.most }" />
      </p>
      <SmallWeek
        v-else-if="first.sections.length > 1"
        :sections="first.sections"
        :hue-of="hueIn"
        :scale="{ from: 480, to: 1260 }"
        alone
      />
      <p v-if="first.sections.length > 1" class="small">
        <span v-for="one in first.sections" :key="one.code" :class="`key hue-${hueIn(one.course)}`"
          >{{ one.course }}-{{ one.number }}</span
        >
      </p>
    </div>
    <div v-if="isWaiting">
      <div class="keys">
        <template v-if="first.mayDecide">
          <v-btn
            variant="flat"
            color="primary"
            :disabled="busy || !chosen.length || !isSettled"
            @click="answer('given')"
            >Grant{{ requests.length > 1 ? ` ${chosen.length}` : '' }}</v-btn
          >
          <v-btn :disabled="busy || !chosen.length" @click="answer('declined')">Decline</v-btn>
        </template>
        <v-btn v-else variant="flat" color="primary" :disabled="busy || !chosen.length" @click="handOn(to)"
          >Hand on to {{ DECIDER_WORDS[to] }}</v-btn
        >
      </div>
      <v-text-field
        v-if="first.mayDecide && isPermission(first.kind)"
        v-model="until"
        type="date"
        label="holds until"
        class="field"
      />
      <p v-if="first.mayDecide && first.others.length" class="small">
        hand on to
        <template v-for="(whom, n) in first.others" :key="whom"
          >{{ n ? ' or ' : ''
          }}<v-text-btn :disabled="busy || !chosen.length" @click="handOn(whom)">{{
            DECIDER_WORDS[whom]
          }}</v-text-btn></template
        >
      </p>
      <v-text-btn v-if="!saying" @click="saying = true">say something with it</v-text-btn>
      <v-text-field
        v-else
        v-model="words"
        label="what you say with it"
        maxlength="400"
        class="field"
        @vue:mounted="focusIn"
      />
    </div>
    <div v-else>
      <p class="small">
        <strong>{{ first.state }}</strong> {{ when(first.answer!.at)
        }}{{ first.answer!.until === null ? '' : `, until ${deadlineText(first.answer!.until, college.zone)}`
        }}{{ first.answer!.words ? `: “${first.answer!.words}”` : '' }}
      </p>
      <v-btn
        v-if="first.kind !== 'program'"
        :disabled="busy"
        size="small"
        @click="answer(first.state === 'given' ? 'declined' : 'given')"
        >{{ first.state === 'given' ? 'Take it back' : 'Grant it after all' }}</v-btn
      >
    </div>
  </article>
</template>

<style scoped>
.request {
  display: grid;
  grid-template-columns: 1.1fr 1.1fr 1.2fr 1fr;
  gap: 6px 18px;
  padding: 11px 14px;
  border-left: 4px solid transparent;
}
.request + .request {
  border-top: 1px solid var(--rule);
}
.request:focus-visible,
.request:focus-within {
  border-left-color: var(--dusk);
}
@media (max-width: 900px) {
  .request {
    grid-template-columns: minmax(0, 1fr);
  }
}
p {
  margin: 0 0 4px;
}
.shows {
  display: flex;
  align-items: start;
  gap: 4px;
}
.does {
  color: var(--rowan);
  font-weight: 600;
}
.load {
  display: flex;
  height: 13px;
  border: 1px solid var(--quiet);
  border-radius: 4px;
  overflow: hidden;
}
.load span {
  background: var(--shade);
  border-right: 2px solid var(--ink);
}
.load i {
  background: var(--rowan);
}
.key {
  margin-right: 10px;
  border-bottom: 3px solid var(--hue);
}
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 7px;
}
.field {
  margin-top: 4px;
  max-width: 260px;
}
</style>
