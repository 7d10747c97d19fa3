<script setup lang="ts">
import type { SectionQuestion } from '#core/search'
import { WEEKDAYS, minutes, type Weekday } from '#core/time'
import type { SectionQuery } from '#shared/sections/sectionQuery'
import { clockTime, DAY_NAMES, LONG_DAY_NAMES, timeField } from '#shared/when'
import { MODE_WORDS } from '#shared/words'
import { patternText } from './queryWords'
import type { FoundNeed } from '~/features/degree/useOpenNeeds'

/** Everything that can be asked of sections. */
const props = defineProps<{
  query: SectionQuery
  excluded: ReadonlyMap<SectionQuestion, number>
  needs: readonly FoundNeed[]
  occurring: Record<
    'subjects' | 'colleges' | 'campuses' | 'buildings' | 'sessions' | 'patterns' | 'blocks',
    [string, number][]
  >
  sessions: readonly { code: string; name: string }[]
  past: boolean
}>()
const emit = defineEmits<{ change: [query: SectionQuery] }>()
const college = useCollege()
const filter = computed(() => props.query.filter)
const ask = (part: SectionQuery['filter']) =>
  emit('change', { ...props.query, filter: { ...filter.value, ...part } })

const subjectName = (code: string) => college.view?.subjects.find((one) => one.code === code)?.name ?? code
const LISTS = computed(() => {
  const own: [keyof typeof props.occurring, string, (value: string) => string][] = [
    ['subjects', 'subject', subjectName],
    ['campuses', 'campus', college.campusName],
    ['buildings', 'building', (value) => value],
    ['sessions', 'session', (value) => props.sessions.find((one) => one.code === value)?.name ?? value],
    ['patterns', 'pattern of hours', patternText],
    ['blocks', 'block', (value) => value],
    ['colleges', 'college', (value) => value]
  ]
  return own
    .map(([key, title, text]) => ({
      key,
      title,
      choices: props.occurring[key].map(([value, n]) => ({
        value,
        title: text(value),
        note: String(n)
      }))
    }))
    .filter((one) => one.choices.length > 1)
})
const asksOf = (key: (typeof LISTS.value)[number]['key'], choices: { value: string; title: string }[]) => {
  const asked = filter.value[key]
  if (!asked?.length) return undefined
  const titles = choices.filter((one) => asked.includes(one.value)).map((one) => one.title)
  return titles.length > 2
    ? `${titles.slice(0, 2).join(', ')} and ${titles.length - 2} more`
    : titles.join(', ')
}
const modes = Object.entries(MODE_WORDS).map(([value, title]) => ({
  value: value as keyof typeof MODE_WORDS,
  title
}))
function turnDay(day: Weekday, on: boolean) {
  const others = (filter.value.days?.of ?? []).filter((one) => one !== day)
  const of = (on ? [...others, day] : others).sort((a, b) => a - b)
  ask({ days: of.length ? { of, only: filter.value.days?.only ?? false } : undefined })
}
const dayAsks = computed(() => {
  const { days } = filter.value
  return days && `${days.only ? 'only' : 'any of'} ${days.of.map((day) => DAY_NAMES[day]).join(' ')}`
})
const LENGTHS = [
  { value: '0-55', title: 'up to 55 minutes' },
  { value: '56-90', title: '56 to 90 minutes' },
  { value: '91-180', title: '91 minutes to 3 hours' },
  { value: '181-1440', title: 'longer than 3 hours' }
]
const lengthNow = computed(
  () => filter.value.length && `${filter.value.length.least}-${filter.value.length.most}`
)
function askLength(value: string) {
  const [least, most] = value.split('-').map(Number)
  ask({ length: { least: least!, most: most! } })
}
const needTitles = computed(() => {
  const chosen = props.needs.filter((need) => filter.value.needs?.includes(need.key))
  if (!chosen.length) return undefined
  return chosen.length > 2 ? `${chosen.length} needs` : chosen.map((one) => one.title).join(', ')
})
const timeOf = (event: Event) => {
  const { value } = event.target as HTMLInputElement
  return value ? minutes(value) : undefined
}
const clock = (at: number | undefined) => (at === undefined ? '' : timeField(at))
</script>

<template>
  <FilterBar label="What is asked">
    <template v-if="!past">
      <FilterPill
        toggle
        title="I can take it"
        :asks="filter.takable ? 'yes' : undefined"
        :excluded="excluded.get('takable')"
        @ask="ask({ takable: true })"
        @drop="ask({ takable: undefined })"
      />
      <FilterPill
        toggle
        title="fits my week"
        :asks="filter.fits ? 'yes' : undefined"
        :excluded="excluded.get('fits')"
        @ask="ask({ fits: true })"
        @drop="ask({ fits: undefined })"
      />
      <FilterPill
        title="seats"
        :asks="
          filter.seats === 'open' ? 'a seat left' : filter.seats === 'line' ? 'a seat or a line' : undefined
        "
        :excluded="excluded.get('seats')"
        @drop="ask({ seats: undefined })"
      >
        <label class="radio"
          ><v-radio
            name="seats"
            :model-value="filter.seats === 'open'"
            @update:model-value="ask({ seats: 'open' })"
          />
          a seat left</label
        >
        <label class="radio"
          ><v-radio
            name="seats"
            :model-value="filter.seats === 'line'"
            @update:model-value="ask({ seats: 'line' })"
          />
          a seat left, or a place in line</label
        >
      </FilterPill>
    </template>
    <FilterPill
      title="need"
      :asks="needTitles"
      :excluded="excluded.get('needs')"
      @drop="ask({ needs: undefined })"
    >
      <FilterChoices
        :model-value="filter.needs"
        title="Counts toward"
        :choices="needs.map((one) => ({ value: one.key, title: one.title }))"
        @update:model-value="ask({ needs: $event })"
      />
    </FilterPill>
    <FilterPill
      toggle
      title="two needs at once"
      :asks="filter.serves ? 'yes' : undefined"
      :excluded="excluded.get('serves')"
      @ask="ask({ serves: 2 })"
      @drop="ask({ serves: undefined })"
    />
    <FilterPill
      title="days"
      :asks="dayAsks"
      :excluded="excluded.get('days')"
      @drop="ask({ days: undefined })"
    >
      <fieldset>
        <legend class="quiet small">Meets on</legend>
        <label v-for="day in WEEKDAYS" :key="day" class="radio"
          ><v-checkbox-btn
            :model-value="filter.days?.of.includes(day) ?? false"
            @update:model-value="turnDay(day, $event)"
          />
          {{ LONG_DAY_NAMES[day] }}</label
        >
      </fieldset>
      <label v-if="filter.days" class="radio"
        ><v-checkbox-btn
          :model-value="filter.days.only"
          @update:model-value="ask({ days: { ...filter.days!, only: !filter.days!.only } })"
        />
        only on these</label
      >
    </FilterPill>
    <FilterPill
      title="starts after"
      :asks="filter.after === undefined ? undefined : `starts ${clockTime(filter.after)} or later`"
      :excluded="excluded.get('after')"
      @drop="ask({ after: undefined })"
    >
      <label class="radio"
        >No class before
        <v-text-field
          type="time"
          step="900"
          :model-value="clock(filter.after)"
          @change="ask({ after: timeOf($event) })"
      /></label>
    </FilterPill>
    <FilterPill
      title="ends before"
      :asks="filter.before === undefined ? undefined : `over by ${clockTime(filter.before)}`"
      :excluded="excluded.get('before')"
      @drop="ask({ before: undefined })"
    >
      <label class="radio"
        >Every class over by
        <v-text-field
          type="time"
          step="900"
          :model-value="clock(filter.before)"
          @change="ask({ before: timeOf($event) })"
      /></label>
    </FilterPill>
    <FilterPill
      title="mode"
      :asks="filter.modes?.map((one) => MODE_WORDS[one]).join(', ')"
      :excluded="excluded.get('modes')"
      @drop="ask({ modes: undefined })"
    >
      <FilterChoices
        :model-value="filter.modes"
        :choices="modes"
        @update:model-value="ask({ modes: $event })"
      />
    </FilterPill>
    <FilterPill
      v-for="one in LISTS"
      :key="one.key"
      :title="one.title"
      :asks="asksOf(one.key, one.choices)"
      :excluded="excluded.get(one.key)"
      @drop="ask({ [one.key]: undefined })"
    >
      <FilterChoices
        :model-value="filter[one.key]"
        :choices="one.choices"
        @update:model-value="ask({ [one.key]: $event })"
      />
    </FilterPill>
    <FilterPill
      title="length of class"
      :asks="LENGTHS.find((one) => one.value === lengthNow)?.title"
      :excluded="excluded.get('length')"
      @drop="ask({ length: undefined })"
    >
      <label v-for="one in LENGTHS" :key="one.value" class="radio"
        ><v-radio
          name="length"
          :model-value="one.value === lengthNow"
          @update:model-value="askLength(one.value)"
        />
        {{ one.title }}</label
      >
    </FilterPill>
    <FilterCredits
      :model-value="filter.credits"
      :excluded="excluded.get('credits')"
      @update:model-value="ask({ credits: $event })"
    />
    <FilterCategories
      :model-value="filter.categories"
      :excluded="excluded.get('categories')"
      @update:model-value="ask({ categories: $event })"
    />
    <FilterPill
      toggle
      title="no extra fee"
      :asks="filter.noFee ? 'yes' : undefined"
      :excluded="excluded.get('noFee')"
      @ask="ask({ noFee: true })"
      @drop="ask({ noFee: undefined })"
    />
    <FilterPill
      toggle
      title="no permission needed"
      :asks="filter.noPermission ? 'yes' : undefined"
      :excluded="excluded.get('noPermission')"
      @ask="ask({ noPermission: true })"
      @drop="ask({ noPermission: undefined })"
    />
  </FilterBar>
</template>

<style scoped>
.radio {
  display: flex;
  gap: 7px;
  align-items: center;
  padding: 2px 0;
}
fieldset {
  border: 0;
  padding: 0;
}
</style>
