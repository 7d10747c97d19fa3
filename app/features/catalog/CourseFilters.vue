<script setup lang="ts">
import type { CourseQuestion } from '#core/search'
import type { FoundNeed } from '~/features/degree/useOpenNeeds'
import type { CourseQuery } from '#shared/catalog/courseQuery'
import { LEVEL_WORDS, MODE_WORDS, SEASON_WORDS } from '#shared/words'

/** Everything that can be asked of courses, each with what it alone hides. */
const props = defineProps<{
  query: CourseQuery
  excluded: ReadonlyMap<CourseQuestion, number>
  needs: FoundNeed[]
  termName: string
  /** The level asked for when nothing is said. */
  ownLevel: 'undergraduate' | 'graduate' | 'any'
}>()
const emit = defineEmits<{ change: [query: CourseQuery] }>()
const college = useCollege()
const student = useStudent()

const filter = computed(() => props.query.filter)
type Filter = CourseQuery['filter']
const ask = (part: Partial<Filter>) =>
  emit('change', { ...props.query, filter: { ...props.query.filter, ...part } })
const study = computed(() => props.query.study ?? props.ownLevel)

const subjects = computed(() =>
  (college.view?.subjects ?? []).map(({ code, name }) => ({ value: code, title: code, note: name }))
)
const colleges = computed(() => [...new Set((college.view?.subjects ?? []).map((one) => one.college))])
const campuses = computed(() =>
  (college.view?.campuses ?? []).map(({ code, name }) => ({ value: code, title: name }))
)
const YEARS = [
  { value: 1, title: 'first year' },
  { value: 2, title: 'second year' },
  { value: 3, title: 'third year' },
  { value: 4, title: 'fourth year' },
  { value: 5, title: 'graduate' }
]
const choicesOf = <T extends string>(words: Record<T, string>) =>
  (Object.entries(words) as [T, string][]).map(([value, title]) => ({ value, title }))
const titlesOf = (list: readonly (string | number)[] | undefined, all: { value: unknown; title: string }[]) =>
  list &&
  all
    .filter((one) => (list as unknown[]).includes(one.value))
    .map((one) => one.title)
    .join(', ')

const needTitles = computed(() => {
  const chosen = props.needs.filter((need) => filter.value.needs?.includes(need.key))
  return chosen.length > 2 ? `${chosen.length} needs` : chosen.map((one) => one.title).join(', ')
})
</script>

<template>
  <FilterBar label="What is asked of the courses">
    <template v-if="student.reading">
      <FilterPill
        title="counts toward"
        :asks="filter.needs && `counts toward ${needTitles}`"
        :excluded="excluded.get('needs')"
        @drop="ask({ needs: undefined })"
      >
        <FilterChoices
          :model-value="filter.needs"
          title="A need that is still open"
          :choices="needs.map((need) => ({ value: need.key, title: need.title }))"
          @update:model-value="ask({ needs: $event })"
        />
      </FilterPill>
      <FilterPill
        title="counts for something"
        toggle
        :asks="filter.serves === 1 ? '' : undefined"
        :excluded="filter.serves === 1 ? excluded.get('serves') : undefined"
        @ask="ask({ serves: 1 })"
        @drop="ask({ serves: undefined })"
      />
      <FilterPill
        title="counts toward two needs at once"
        toggle
        :asks="filter.serves === 2 ? '' : undefined"
        :excluded="filter.serves === 2 ? excluded.get('serves') : undefined"
        @ask="ask({ serves: 2 })"
        @drop="ask({ serves: undefined })"
      />
    </template>
    <FilterPill
      :title="`runs in ${termName}`"
      toggle
      :asks="filter.runs && ''"
      :excluded="excluded.get('runs')"
      @ask="ask({ runs: true })"
      @drop="ask({ runs: undefined })"
    />
    <template v-if="student.reading">
      <FilterPill
        title="I can take it then"
        toggle
        :asks="filter.takable && ''"
        :excluded="excluded.get('takable')"
        @ask="ask({ takable: true })"
        @drop="ask({ takable: undefined })"
      />
      <FilterPill
        title="not done or planned"
        toggle
        :asks="filter.fresh && ''"
        :excluded="excluded.get('fresh')"
        @ask="ask({ fresh: true })"
        @drop="ask({ fresh: undefined })"
      />
    </template>
    <FilterPill
      title="subject"
      :asks="filter.subjects?.join(', ')"
      :excluded="excluded.get('subjects')"
      @drop="ask({ subjects: undefined })"
    >
      <FilterChoices
        :model-value="filter.subjects"
        :choices="subjects"
        @update:model-value="ask({ subjects: $event })"
      />
    </FilterPill>
    <FilterPill
      title="year"
      :asks="titlesOf(filter.years, YEARS)"
      :excluded="excluded.get('years')"
      @drop="ask({ years: undefined })"
    >
      <FilterChoices
        :model-value="filter.years"
        :choices="YEARS"
        @update:model-value="ask({ years: $event })"
      />
    </FilterPill>
    <FilterCategories
      :model-value="filter.categories"
      :excluded="excluded.get('categories')"
      @update:model-value="ask({ categories: $event })"
    />
    <FilterCredits
      :model-value="filter.credits"
      :excluded="excluded.get('credits')"
      @update:model-value="ask({ credits: $event })"
    />
    <FilterPill
      title="season"
      :asks="filter.seasons && `usually in ${titlesOf(filter.seasons, choicesOf(SEASON_WORDS))}`"
      :excluded="excluded.get('seasons')"
      @drop="ask({ seasons: undefined })"
    >
      <FilterChoices
        :model-value="filter.seasons"
        title="Usually runs in"
        :choices="choicesOf(SEASON_WORDS)"
        @update:model-value="ask({ seasons: $event })"
      />
    </FilterPill>
    <FilterPill
      title="mode"
      :asks="titlesOf(filter.modes, choicesOf(MODE_WORDS))"
      :excluded="excluded.get('modes')"
      @drop="ask({ modes: undefined })"
    >
      <FilterChoices
        :model-value="filter.modes"
        :title="`A section of ${termName}`"
        :choices="choicesOf(MODE_WORDS)"
        @update:model-value="ask({ modes: $event })"
      />
    </FilterPill>
    <FilterPill
      title="campus"
      :asks="titlesOf(filter.campuses, campuses)"
      :excluded="excluded.get('campuses')"
      @drop="ask({ campuses: undefined })"
    >
      <FilterChoices
        :model-value="filter.campuses"
        :title="`A section of ${termName}`"
        :choices="campuses"
        @update:model-value="ask({ campuses: $event })"
      />
    </FilterPill>
    <FilterPill
      v-if="colleges.length > 1"
      title="college"
      :asks="filter.colleges?.join(', ')"
      :excluded="excluded.get('colleges')"
      @drop="ask({ colleges: undefined })"
    >
      <FilterChoices
        :model-value="filter.colleges"
        :choices="colleges.map((name) => ({ value: name, title: name }))"
        @update:model-value="ask({ colleges: $event })"
      />
    </FilterPill>
    <FilterPill
      title="level of study"
      :asks="study === 'any' ? undefined : LEVEL_WORDS[study]"
      :excluded="excluded.get('study')"
      @drop="emit('change', { ...query, study: 'any' })"
    >
      <fieldset class="levels">
        <label v-for="level in ['undergraduate', 'graduate', 'any'] as const" :key="level">
          <v-radio
            name="level"
            :model-value="study === level"
            @update:model-value="emit('change', { ...query, study: level })"
          />
          {{ level === 'any' ? 'any level' : LEVEL_WORDS[level] }}
        </label>
      </fieldset>
    </FilterPill>
  </FilterBar>
</template>

<style scoped>
.levels {
  border: 0;
  padding: 0;
  display: grid;
  gap: 3px;
}
</style>
