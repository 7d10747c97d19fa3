<script setup lang="ts">
import type { ProgramSpec } from '#core/degree'
import type { GuidanceText } from '#shared/catalog/guidance'
import { ABOUT_WORDS, FOUND_WORDS, type FoundKind } from '#shared/catalog/guidanceWords'
import { count } from '#shared/words'

useHead({ title: 'Guidance · Ridgeway' })
const staff = useStaff()
const college = useCollege()
const places = useStaffPlaces()
onMounted(() => void staff.load())
const { known: programs, failure, read } = useRead(() => api<ProgramSpec[]>('/api/programs'))
onMounted(read)

const texts = computed(() => college.view?.guidance ?? [])
/** The one that is changed; `new` for another one. */
const writing = ref<GuidanceText | 'new'>()
/** What a text is about, in words. */
function aboutOf({ about, key }: GuidanceText): string {
  switch (about) {
    case 'everybody':
      return ABOUT_WORDS.everybody
    case 'finding':
      return FOUND_WORDS[key as FoundKind] ?? key
    case 'term':
      return college.termName(key)
    case 'program':
      return programs.value?.find((one) => one.code === key)?.title ?? key
    case 'course':
      return `${key} ${college.catalogContext?.catalog.maybeCourse(key)?.title ?? ''}`.trim()
  }
}
</script>

<template>
  <AppFrame :places="places">
    <ViewState
      :failure="staff.failure ?? failure"
      :ready="staff.ready && Boolean(programs)"
      @retry="(staff.load(), read())"
    >
      <div class="page">
        <div class="page-head">
          <h1>Guidance</h1>
          <span class="quiet"
            >{{ count(texts.length, 'text') }} of {{ college.name }}, each read where it is about something;
            on public pages too, but for those on findings</span
          >
          <v-btn class="push" variant="flat" color="primary" @click="writing = 'new'">Write a text</v-btn>
        </div>
        <ul v-if="texts.length" class="card">
          <li v-for="one in texts" :key="one.id">
            <div>
              <span class="pill">{{ aboutOf(one) }}</span>
              <p>
                <strong>{{ one.title }}.</strong> {{ one.text }}
                <a
                  v-if="one.link"
                  class="textlink"
                  :href="one.link"
                  target="_blank"
                  rel="noopener noreferrer"
                  >{{ one.link }}</a
                >
              </p>
            </div>
            <v-btn :aria-label="`Change “${one.title}”`" @click="writing = one">Change</v-btn>
          </li>
        </ul>
        <p v-else class="card empty">
          No text is written yet. A text says what this institution wants to be known: on Today, or beside a
          program, a term, a course, or something that is found wrong.
        </p>
        <GuidanceForm
          v-if="writing"
          :key="writing === 'new' ? 0 : writing.id"
          :text="writing === 'new' ? undefined : writing"
          :programs="programs!"
          @close="writing = undefined"
        />
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 4px 16px;
}
li {
  display: flex;
  align-items: start;
  gap: 16px;
  padding: 12px 0;
}
li + li {
  border-top: 1px solid var(--rule);
}
li > div {
  flex: 1;
  min-width: 0;
}
li p {
  max-width: 76ch;
  margin: 6px 0 0;
  overflow-wrap: anywhere;
}
.empty {
  max-width: 76ch;
  padding: 24px;
}
</style>
