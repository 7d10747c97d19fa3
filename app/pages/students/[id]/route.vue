<script setup lang="ts">
import { useLocalStorage, useMediaQuery } from '@vueuse/core'
import type { NeedResult, PlannedCourse } from '#core/degree'
import type { BoardCourse } from '~/features/route/useRouteBoard'
import { routeFigures } from '#shared/degree/figures'
import { ago } from '#shared/when'
import { changeText } from '#shared/route/texts'
import { count } from '#shared/words'
import { NEED_STATES } from '#shared/degree/texts'

useHead({ title: 'Route · Ridgeway' })
const student = useStudent()
const routeChanges = useRouteChanges()
const college = useCollege()
const clock = useClock()
const standing = useStanding()
const narrow = useNarrow()
const talk = useTalk()

const view = computed(() => student.view!)
const route = computed(() => view.value.route)
/** The need that is looked at, in which term, and what would be replaced for it. */
const need = shallowRef<{ result: NeedResult; term?: string | undefined; instead?: PlannedCourse }>()
const picker = ref<HTMLElement>()
/** The same need as it stands after what was added for it: the picker stays open for the next course. */
const needNow = computed(() => {
  const asked = need.value?.result.need
  if (!asked) return undefined
  const all = (student.reading?.audits ?? []).flatMap((audit) => audit.areas.flatMap((area) => area.needs))
  return all.find((one) => one.need.id === asked.id && one.need.area === asked.area) ?? need.value!.result
})
function replace({ attempt, note, locked, need: result }: BoardCourse) {
  if (!result || !attempt.term) return
  const { course, credits, term: at } = attempt
  need.value = { result, term: at, instead: { course, credits, term: at, note, locked } }
}
/** What is open above or below the board. */
const open = ref<'fill' | 'carry' | 'routes'>()
const filling = useFilling()
function toggle(what: typeof open.value) {
  open.value = open.value === what ? undefined : what
}
onMounted(() => addEventListener('keydown', onKey))
onUnmounted(() => {
  removeEventListener('keydown', onKey)
  filling.leave()
  student.shown = undefined
})
function onKey(event: KeyboardEvent) {
  const target = event.target as HTMLElement
  if (['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) || event.defaultPrevented || event.altKey)
    return
  const isControl = event.ctrlKey || event.metaKey
  if (event.key === 's' && !isControl && student.maySuggest) student.suggests = !student.suggests
  if (!isControl || event.key.toLowerCase() !== 'z') return
  if (!student.mayChangeRoute || student.isSuggesting) return
  event.preventDefault()
  void routeChanges.stepRoute(event.shiftKey ? 'redo' : 'undo')
}
/** What the button to the review says of it. */
const reviewText = computed(() => {
  const name = standing.term?.name ?? 'the term'
  if (standing.openReview) return `Review of ${name} asked`
  if (standing.signOff)
    return standing.changedSince ? `${name} changed since its sign-off` : `${name} signed off`
  if (standing.review?.answer?.missing) return `${name}: not yet`
  return student.own ? 'Ask for review' : `Review of ${name}`
})
/** The next step of the review is with whoever looks. */
const asksForAct = computed(() => {
  const isAsked = standing.openReview !== undefined
  if (student.own) return !isAsked && (!standing.signOff || standing.changedSince)
  return view.value.relation === 'programAdvisor' && isAsked
})
/** Where there is room for it the talk stands beside the board once it was put there; else at the foot. */
const hasRoom = useMediaQuery('(min-width: 1100px)')
const besideWhereRoom = useLocalStorage('ridgeway-talk-beside', false)
const isBeside = computed(() => hasRoom.value && talk.mayTalk && besideWhereRoom.value)
async function openTalk() {
  if (hasRoom.value) besideWhereRoom.value = !besideWhereRoom.value
  await nextTick()
  if (isBeside.value || !hasRoom.value) talk.show('talk')
}
/** Somebody has begun to speak of something: the place to write it comes into view. */
watch(
  () => talk.about,
  async (about, before) => {
    if (!about || before) return
    await nextTick()
    document.getElementById('talk')?.scrollIntoView({ block: 'center' })
  },
  { flush: 'post' }
)
/** With what is kept of a proposal, while there is one. */
const figures = computed(() => (filling.preview ? routeFigures(filling.preview) : standing.figures))
const aheadText = computed(() =>
  (figures.value?.programs ?? [])
    .map((one, i) => `${one.ahead} credits ahead${i ? ` in the ${one.kind}` : ''}`)
    .join(' · ')
)
onMounted(() => talk.about && document.getElementById('talk')?.scrollIntoView({ block: 'center' }))
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Route “{{ route.name }}”</h1>
      <span class="pill">{{ count(route.courses.length, 'course') }} placed</span>
      <v-text-btn :aria-expanded="open === 'routes'" @click="toggle('routes')">
        {{ student.routes.length > 1 ? count(student.routes.length, 'route') : 'Routes' }}
      </v-text-btn>
      <span v-if="route.version" class="quiet small"
        >changed {{ ago(route.changedAt, clock.minute, college.zone) }} by {{ route.changedBy }}</span
      >
      <span class="push quiet">
        <template v-if="figures?.finish"
          >finish <strong>{{ college.shortTerm(figures.finish.code) }}</strong> · </template
        >{{ aheadText }} · busiest {{ figures?.busiest ?? 0 }} cr
      </span>
    </div>
    <div class="actions no-print">
      <v-btn
        v-if="student.maySuggest"
        size="small"
        :variant="student.isSuggesting ? 'flat' : 'outlined'"
        :color="student.isSuggesting ? 'primary' : undefined"
        :aria-pressed="student.isSuggesting"
        aria-keyshortcuts="s"
        @click="student.suggests = !student.suggests"
        >{{ student.isSuggesting ? 'Stop suggesting' : 'Suggest changes' }}</v-btn
      >
      <template v-if="student.mayChangeRoute && !student.isSuggesting">
        <v-btn
          size="small"
          :disabled="!route.undo"
          :aria-label="route.undo ? `Undo: ${changeText(route.undo, college.shortTerm)}` : 'Undo'"
          @click="routeChanges.stepRoute('undo')"
          >Undo</v-btn
        >
        <v-btn
          size="small"
          :disabled="!route.redo"
          :aria-label="route.redo ? `Redo: ${changeText(route.redo, college.shortTerm)}` : 'Redo'"
          @click="routeChanges.stepRoute('redo')"
          >Redo</v-btn
        >
      </template>
      <v-btn v-if="student.mayEditRoute" size="small" @click="toggle('fill')">Fill the rest</v-btn>
      <v-btn v-if="student.own" size="small" @click="toggle('carry')">My limits</v-btn>
      <RouteMenu />
      <v-btn
        :variant="asksForAct ? 'flat' : 'outlined'"
        :color="asksForAct ? 'primary' : undefined"
        @click="talk.show('review')"
        >{{ reviewText }}</v-btn
      >
      <v-btn
        v-if="talk.mayTalk"
        size="small"
        :aria-pressed="hasRoom ? isBeside : undefined"
        @click="openTalk"
        >{{ talk.unread ? `The talk, ${count(talk.unread, 'matter')} new` : 'The talk' }}</v-btn
      >
    </div>
    <p v-if="!route.chosen" class="signed">
      This is not the chosen route; Week and Register work with “{{ student.routes[0]?.name }}”.
    </p>
    <p v-if="!route.courses.length && student.mayEditRoute" class="signed">
      Nothing is placed yet. Drag what is needed onto a term or press it, find a course with
      <kbd>/</kbd>, or <v-text-btn @click="open = 'fill'">let the rest be filled</v-text-btn>, from what your
      program suggests if you like.
    </p>
    <SuggestionBar />
    <LazyCarryPanel v-if="open === 'carry'" @close="open = undefined" />
    <LazyRoutesPanel v-if="open === 'routes'" @close="open = undefined" />

    <div class="sheet" :class="{ beside: isBeside }">
      <div class="plan">
        <LazyRouteTerms
          v-if="narrow"
          @need="(result, term) => (need = { result, term })"
          @replace="replace"
        />
        <RouteBoard v-else @need="(result, term) => (need = { result, term })" @replace="replace" />
        <LazyFillPanel v-if="open === 'fill'" @close="open = undefined" />
      </div>
      <div class="column">
        <RouteFindings @fill="open = 'fill'" />
        <ReviewCard id="review" tabindex="-1" />
        <IntentionCard />
      </div>
      <TalkPanel />
    </div>

    <v-dialog
      :model-value="Boolean(need)"
      max-width="640"
      aria-labelledby="need-title"
      @update:model-value="need = undefined"
    >
      <div v-if="need" ref="picker" class="card need" tabindex="-1">
        <h2 id="need-title">{{ need.result.need.title }}</h2>
        <p v-if="needNow && needNow.state !== 'needed'" role="status">
          Nothing more is needed for it: {{ NEED_STATES[needNow.state] }}.
        </p>
        <LazyNeedCandidates
          v-else
          :result="needNow ?? need.result"
          :at="need.term"
          :instead="need.instead"
          @adding="picker?.focus()"
          @added="need.instead && (need = undefined)"
        />
        <v-btn @click="need = undefined">Close</v-btn>
      </div>
    </v-dialog>
  </div>
</template>

<style scoped>
.actions {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin-bottom: 10px;
}
.signed {
  background: var(--dusk-tint);
  border-radius: 8px;
  padding: 6px 12px;
  margin: 0 0 10px;
}
.sheet {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  grid-template-areas: 'plan plan' 'column talk';
  gap: 10px 12px;
  align-items: start;
}
.plan {
  grid-area: plan;
  min-width: 0;
}
#talk {
  grid-area: talk;
}
/* Beside what it is about. */
@media (min-width: 1100px) {
  .sheet.beside {
    grid-template-columns: minmax(0, 1fr) 372px;
    grid-template-rows: auto 1fr;
    grid-template-areas: 'plan talk' 'column talk';
  }
  .beside #talk {
    position: sticky;
    top: 0;
    max-height: calc(100vh - 60px);
    overflow-y: auto;
  }
}
.column {
  grid-area: column;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
}
.column .card {
  padding: 10px 13px;
}
.column p {
  margin: 0 0 4px;
}
.need {
  padding: 18px;
  max-height: 80vh;
  overflow-y: auto;
  color: var(--ink);
}
@media (max-width: 980px) {
  .sheet {
    grid-template-columns: minmax(0, 1fr);
    grid-template-areas: 'plan' 'column' 'talk';
  }
}
</style>
