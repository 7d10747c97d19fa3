<script setup lang="ts">
import { phaseOf } from '#core/catalog'
import type { Section } from '#core/week'
import { SECTION_SORTS, type SectionQuery } from '#shared/sections/sectionQuery'
import { deadlineText, dayMonth, shortInstant } from '#shared/when'
import { seatsText, sectionHours } from '#shared/week/texts'
import { count } from '#shared/words'
import { servingText } from '#shared/degree/texts'
import { QUESTION_WORDS, SORT_WORDS } from '~/features/sections/queryWords'
import type { SectionLine } from '~/features/sections/useFoundSections'

useHead({ title: 'Sections · Ridgeway' })
const student = useStudent()
const college = useCollege()
const standing = useStanding()
const finder = useFinder()
const { hueOf } = useHues()

const { text, query, change } = useTypedQuery()
const { term, offer, sections, openNeeds, faceted, lines, office, occurring } = useFoundSections(query)
const terms = computed(() => (college.catalogContext?.terms ?? []).filter((one) => one.published))
const isPast = computed(() => term.value !== undefined && phaseOf(term.value, college.today) === 'past')
/** Nothing can be added to the term any more. */
const isClosed = computed(
  () => term.value !== undefined && college.termsAhead.every((one) => one.code !== term.value!.code)
)
const sessionChoices = computed(() =>
  (term.value?.sessions ?? []).map(({ code, name, start, end }) => ({
    code,
    name: `${name}, ${dayMonth(start)} to ${dayMonth(end)}`
  }))
)
const about = shallowRef<Section>()
const scale = { from: 8 * 60, to: 20 * 60 }
const dropCostliest = () =>
  change({
    ...query.value,
    filter: { ...query.value.filter, [faceted.value.costliest!]: undefined }
  })

const { inDraft, isHeld, mayPick, mayRegister, pick, register, against } = useSectionActs(term)
const room = ({ main }: SectionLine) => main.meetings.find((one) => one.room)?.room ?? college.placeName(main)
const session = ({ main }: SectionLine) =>
  main.session === 'FULL' ? '' : (term.value?.sessions.find((one) => one.code === main.session)?.name ?? '')
onMounted(() => finder.warm())
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Sections of</h1>
      <label class="term"
        ><span class="visually-hidden">Term</span>
        <v-select
          :model-value="term?.code"
          :items="terms"
          item-value="code"
          item-title="name"
          @update:model-value="change({ ...query, term: $event as string })"
      /></label>
      <v-text-field
        v-model="text"
        type="search"
        class="question"
        aria-label="Course, section, words, instructor, days and hours"
        placeholder="ENVI 310-02, a name, words, or TR 9-12"
        autocomplete="off"
      />
      <label
        ><span class="visually-hidden">Order</span>
        <v-select
          :model-value="query.sort"
          :items="SECTION_SORTS"
          :item-title="(sort) => SORT_WORDS[sort as SectionQuery['sort']]"
          @update:model-value="change({ ...query, sort: $event as SectionQuery['sort'] })"
      /></label>
      <v-btn class="push" variant="outlined" size="small" :to="`/students/${student.view?.student.id}/week`"
        >Back to the week</v-btn
      >
    </div>
    <p v-if="isClosed" class="past">
      {{
        isPast
          ? `${term?.name} is over. Shown is what was offered and how full it was`
          : `Adding to ${term?.name} was possible until ${deadlineText(term!.addEndsAt, college.zone)}. Shown is what is offered and how full it is`
      }}; nothing can be picked.
    </p>
    <SectionFilters
      :query="query"
      :excluded="faceted.excluded"
      :needs="openNeeds"
      :occurring="occurring"
      :sessions="sessionChoices"
      :past="isClosed"
      @change="change"
    />
    <ViewState
      :failure="finder.failure"
      :ready="Boolean(offer)"
      @retry="term && finder.loadOffer(term.code, true)"
    >
      <p class="found" role="status">
        <strong>{{ count(lines.length, 'section') }}</strong>
        <span v-if="offer" class="quiet small">
          · seats as read {{ shortInstant(offer.readAt, college.zone) }}</span
        >
        <v-text-btn v-if="office" @click="change({ ...query, office: !query.office })">
          {{ query.office ? 'fold away' : 'show' }} {{ count(office, 'section') }} only an office places
        </v-text-btn>
      </p>
      <v-virtual-scroll
        v-if="lines.length"
        class="card list"
        :items="lines"
        :item-height="70"
        role="list"
        aria-label="Sections found"
      >
        <template #default="{ item: line }">
          <div class="row" role="listitem" :class="`hue-${hueOf(line.main.course).hue}`">
            <div class="what">
              <v-bare-btn class="name" @click="about = line.main">
                <strong class="display">{{ line.main.course }}-{{ line.main.number }}</strong>
                {{ line.main.topic ?? line.course.title }}
              </v-bare-btn>
              <span class="quiet small"
                >{{ line.main.code }} · {{ line.main.credits }} cr ·
                {{ line.main.instructors.join(', ') || 'instructor to be named' }}</span
              >
              <span
                v-if="line.serving.kind !== 'full' && line.serving.kind !== 'nothing'"
                class="small needs"
                >{{ student.say(servingText(line.serving)) }}</span
              >
            </div>
            <SmallWeek
              :sections="[line.main, ...line.parts]"
              :hue-of="() => hueOf(line.main.course).hue"
              :scale="scale"
            />
            <div class="when">
              <span>{{ sectionHours(line.main) }}</span>
              <span class="quiet small">{{
                [
                  room(line),
                  session(line),
                  line.parts.length ? `with ${line.parts[0]!.kind}` : '',
                  line.main.block && `block ${line.main.block}`
                ]
                  .filter(Boolean)
                  .join(' · ')
              }}</span>
            </div>
            <div class="seats">
              <span>{{ seatsText(line.main) }}</span>
              <span v-if="!isClosed && against(line)" class="small stops">{{ against(line) }}</span>
            </div>
            <div class="act">
              <span v-if="isHeld(line)" class="quiet">registered</span>
              <v-text-btn v-else-if="mayPick(line)" :aria-pressed="inDraft(line)" @click="pick(line)">
                {{
                  inDraft(line) ? 'Unpick' : standing.heldCourses.has(line.main.course) ? 'Exchange' : 'Pick'
                }}<span class="visually-hidden"> {{ line.main.course }}-{{ line.main.number }}</span>
              </v-text-btn>
              <v-text-btn v-if="mayRegister(line)" @click="register(line)"
                >Register<span class="visually-hidden">
                  {{ line.main.course }}-{{ line.main.number }}</span
                ></v-text-btn
              >
            </div>
          </div>
        </template>
      </v-virtual-scroll>
      <div v-else class="card none">
        <p>
          No section of {{ term?.name }} fits all of this.
          <template v-if="faceted.costliest">
            Without {{ student.say(QUESTION_WORDS[faceted.costliest]) }} there
            {{
              faceted.excluded.get(faceted.costliest) === 1
                ? 'would be 1.'
                : `would be ${faceted.excluded.get(faceted.costliest)}.`
            }}
            <v-text-btn @click="dropCostliest">Ask without it</v-text-btn>
          </template>
          <template v-else>Try a course such as ENVI 310, or fewer words.</template>
        </p>
      </div>
    </ViewState>
    <LazySectionSheet
      v-if="about"
      :section="about"
      :among="sections"
      v-bind="offer ? { readAt: offer.readAt } : {}"
      @close="about = undefined"
    />
  </div>
</template>

<style scoped>
.term .v-select {
  font-family: var(--display);
  font-size: 18px;
  font-weight: 650;
}
.question {
  flex: 1 1 260px;
}
.past {
  margin-bottom: 8px;
  color: var(--ember);
  font-weight: 650;
}
.found {
  display: flex;
  gap: 12px;
  align-items: baseline;
  margin-bottom: 6px;
}
.list {
  height: calc(100vh - 252px);
  min-height: 320px;
}
.row {
  display: grid;
  grid-template-columns: minmax(220px, 1.5fr) 150px minmax(150px, 1fr) minmax(150px, 1fr) 72px;
  gap: 14px;
  align-items: center;
  min-height: 70px;
  padding: 5px 12px;
  border-bottom: 1px solid var(--rule);
}
.what,
.when,
.seats {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.what {
  border-left: 5px solid var(--hue);
  padding-left: 9px;
}
.name {
  text-align: left;
}
.name:hover {
  text-decoration: underline;
}
.needs {
  color: var(--dusk);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.act {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
}
.none {
  padding: 16px;
}
@media (max-width: 820px) {
  .row {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .row svg {
    display: none;
  }
  .list {
    height: calc(100vh - 330px);
  }
}
</style>
