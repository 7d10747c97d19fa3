<script setup lang="ts">
import { generalRefusals } from '#core/registration'
import type { Option, Section } from '#core/week'
import type { Weekday } from '#core/time'
import { preparedRun } from '#shared/registration/prepared'
import { runTitleText } from '#shared/registration/texts'
import { shortInstant } from '#shared/when'
import { toNextOption } from '~/features/week/optionKeys'

useHead({ title: 'Week · Ridgeway' })
const student = useStudent()
const college = useCollege()
const standing = useStanding()
const weeks = useWeeks()
const { hueOf } = useHues()

const wanted = computed<string[]>(() => standing.courses)
const { sections, failure, loaded, readAt, refresh } = useOffer(wanted)
const { rows, alongWith, travel } = useWeekOptions(sections)
const finding = useFinding()
watch(sections, (list) => (finding.sections = list), { immediate: true })
// How many weeks fit stands on the way to them.
watch([() => finding.call, loaded], () => loaded.value && finding.ask(), { immediate: true })
finding.hold()
const preview = ref<Option>()
const about = shallowRef<Section>()
const shown = ref<'typical' | 'dated' | 'compare'>('typical')
const keeping = ref(false)
const painted = shallowRef<{ days: Weekday[]; start: number; end: number }>()

const shownWeek = useShownWeek(sections, preview, travel)
const { now, held, picked, week, shownPreview, shownPicked, shownHeld } = shownWeek
const { clashing, scale, ways, since, summary, note } = shownWeek
const remarks = useWeekRemarks(sections, shownWeek)
/** What the sheet of the term comes to, as soon as it can be run: from the week gone with. */
const sheetRun = computed(() => preparedRun(student.view!, standing.term!.code))
const runFromHere = useRunFromElsewhere()
const facts = useTermFacts(
  computed(() => standing.term),
  () => sections.value
)
const runTitle = computed(() => {
  if (standing.work?.adding !== 'open' || weeks.draft?.goingWith === false) return undefined
  // What stops every line is settled on Register, which says it.
  if (!facts.value || generalRefusals(facts.value).length) return undefined
  const { courses, drop } = sheetRun.value
  const exchanges = courses.filter((course) => standing.heldCourses.has(course)).length
  return runTitleText({
    drop: drop.length,
    register: courses.length - exchanges,
    exchange: exchanges,
    wait: 0
  })
})
const { pick, repair } = useOptionPicking(rows, alongWith, preview)
/** How many options each of the hours kept free holds out of the week. */
const removes = computed(() =>
  weeks.keepFree.map(
    (hours) => rows.value.flatMap((row) => row.open).filter((one) => one.kept.includes(hours)).length
  )
)

function paint(hours: { days: Weekday[]; start: number; end: number }) {
  painted.value = hours
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <TermSwitch />
      <DraftWeeks @compare="shown = 'compare'" />
      <p v-if="standing.closedWhy && standing.courses.length" class="quiet">{{ standing.closedWhy }}</p>
      <div v-if="standing.courses.length" class="push actions no-print">
        <v-btn variant="outlined" size="small" :aria-expanded="keeping" @click="keeping = !keeping">
          Keep-free hours
        </v-btn>
        <WeekTake :held="held" :picked="picked" />
        <v-btn
          v-if="runTitle && student.own"
          variant="flat"
          size="small"
          color="primary"
          @click="runFromHere(sheetRun)"
          >{{ runTitle }}</v-btn
        >
        <v-btn
          v-if="!standing.closedWhy"
          :variant="runTitle ? 'outlined' : 'flat'"
          size="small"
          color="primary"
          :to="`/students/${student.view?.student.id}/week/find`"
          >Find weeks<span v-if="finding.counted?.fit !== undefined" class="fit"
            >{{ finding.counted.fit.toLocaleString('en') }} fit</span
          ></v-btn
        >
      </div>
    </div>
    <div v-if="standing.courses.length" class="views">
      <span role="group" aria-label="How the week is shown" class="no-print">
        <v-bare-btn :aria-pressed="shown === 'typical'" @click="shown = 'typical'">Typical week</v-bare-btn>
        <v-bare-btn :aria-pressed="shown === 'dated'" @click="shown = 'dated'">Real weeks</v-bare-btn>
        <v-bare-btn
          v-if="weeks.drafts.length > 1"
          :aria-pressed="shown === 'compare'"
          @click="shown = 'compare'"
        >
          Drafts side by side
        </v-bare-btn>
      </span>
      <span class="quiet">{{ summary }}</span>
    </div>
    <NoteLine
      v-if="weeks.draft && standing.courses.length && !standing.closedWhy"
      :text="weeks.draft.note"
      :about="weeks.draft.name"
      :most="500"
      :own="student.own"
      @change="(note) => weeks.change(weeks.draft!, { note })"
    />
    <template v-if="standing.courses.length">
      <WeekRibbon
        v-if="shown === 'typical'"
        :held="shownHeld"
        :picked="shownPicked"
        :preview="shownPreview"
        :clashing="clashing"
        :since="since"
        :keep-free="weeks.keepFree"
        :ways="shownPreview.length ? [] : ways"
        :hue-of="hueOf"
        :note="note"
        :scale="scale"
        :term="standing.term"
        :paints="keeping && student.own"
        @paint="paint"
      />
      <LazyRealWeeks
        v-else-if="shown === 'dated'"
        :held="held"
        :picked="picked"
        :hue-of="hueOf"
        :scale="scale"
      />
      <LazyWeekCompare v-else :fresh="now" :scale="scale" @close="shown = 'typical'" />
      <KeepFreePanel
        v-if="keeping"
        :removes="removes"
        :painted="painted"
        @done="painted = undefined"
        @close="keeping = false"
      />
      <div role="status">
        <ul v-if="remarks.length" class="remarks">
          <li v-for="one in remarks" :key="one.key" :class="one.grave ? 'stops' : 'warns'">{{ one.text }}</li>
        </ul>
      </div>
      <WeekPaper :week="week" :held="held" :summary="summary" />
      <ViewState :failure="failure" :ready="loaded" @retry="refresh">
        <div class="card courses" @keydown="toNextOption">
          <WeekCourse
            v-for="row in rows"
            :key="row.course"
            :row="row"
            :hue="hueOf(row.course).hue"
            :scale="scale"
            :along-with="alongWith"
            @pick="pick"
            @repair="repair"
            @preview="preview = $event"
            @about="about = $event"
          />
        </div>
        <TermSpan v-if="week.length" class="span" :sections="week" :hue-of="hueOf" />
        <p class="quiet small foot">
          <template v-if="readAt">Seats as read {{ shortInstant(readAt, college.zone) }}.</template>
          A picked section holds no seat.
          <NuxtLink class="textlink" :to="`/students/${student.view?.student.id}/week/sections`"
            >Search all sections of {{ standing.term?.name }}</NuxtLink
          >
        </p>
      </ViewState>
    </template>
    <WeekEmpty v-else />
    <LazySectionSheet v-if="about" :section="about" :among="sections" @close="about = undefined" />
  </div>
</template>

<style scoped>
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.fit {
  margin-left: 6px;
  font-weight: 400;
}
.views {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  justify-content: space-between;
  align-items: baseline;
  margin-bottom: 6px;
}
.views button {
  padding: 2px 2px;
  margin-right: 14px;
  border-bottom: 2px solid transparent;
  color: var(--quiet);
}
.views button[aria-pressed='true'] {
  border-color: var(--dusk);
  color: var(--ink);
  font-weight: 650;
}
.remarks {
  list-style: none;
  padding: 0;
  margin: 8px 0 0;
  font-weight: 650;
}
.warns {
  color: var(--ember);
}
@media print {
  .courses,
  .span,
  .foot {
    display: none;
  }
}
.foot {
  margin-top: 8px;
}
.courses {
  margin-top: 10px;
}
</style>
