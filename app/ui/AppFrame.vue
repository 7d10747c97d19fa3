<script setup lang="ts">
import { useOnline } from '@vueuse/core'
import { ROLE_WORDS, STANDING_WORDS } from '#shared/words'

const props = defineProps<{ places: Place[] }>()
const session = useWho()
const college = useCollege()
const student = useStudent()
const route = useRoute()
const { choice, choose } = useThemeChoice()

const demo = useRuntimeConfig().public.demo
const search = ref<{ focus: () => void }>()
const help = ref(false)
const online = useOnline()
const panel = useCoursePanel()
const { base } = useCoursePages()
/** The page of courses has a search of its own, with more room. */
const onCourses = computed(() => route.path === base.value)
watch(
  () => route.path,
  () => panel.close()
)
function find() {
  if (onCourses.value) document.getElementById('course-question')?.focus()
  else search.value?.focus()
}
useKeys(() => props.places, { search: find, help: () => (help.value = true) })

const initials = computed(() =>
  (session.who?.name ?? '')
    .split(/[\s-]/)
    .map((part) => part[0])
    .slice(0, 2)
    .join('')
)
const role = computed(() => {
  const own = student.own ? student.view : undefined
  if (own) return own.programs[0]?.spec.shortTitle ?? STANDING_WORDS[own.student.standing]
  return ROLE_WORDS[session.who?.role ?? 'student']
})
const THEMES = [
  { value: 'system', title: 'As the system' },
  { value: 'light', title: 'Light' },
  { value: 'dark', title: 'Dark' }
] as const
async function leave() {
  await session.signOut()
  await navigateTo('/sign-in')
}
</script>

<template>
  <a class="skip" href="#main">Skip to the page</a>
  <header class="band">
    <NuxtLink :to="session.home" class="mark">
      <span class="display">Ridgeway</span>
      <span class="college">{{ college.name }}</span>
    </NuxtLink>
    <nav aria-label="Places">
      <NuxtLink
        v-for="place in places"
        :key="place.to"
        :to="place.to"
        class="place"
        :aria-current="route.path === place.to || route.path.startsWith(`${place.to}/`) ? 'page' : undefined"
      >
        <span class="display">{{ place.name }}</span>
        <span class="state">{{ place.state }}</span>
      </NuxtLink>
    </nav>
    <CourseSearch v-if="college.catalogContext && !onCourses" ref="search" class="search" />
    <NuxtLink v-else-if="college.catalogContext" class="search here" :to="base">Courses</NuxtLink>
    <v-menu location="bottom end">
      <template #activator="{ props: menu }">
        <v-bare-btn class="person" v-bind="menu" :aria-label="`${session.who?.name}, ${role}: menu`">
          <span class="who">
            <strong>{{ session.who?.name }}</strong>
            <span>{{ role }}</span>
          </span>
          <span class="avatar" aria-hidden="true">{{ initials }}</span>
        </v-bare-btn>
      </template>
      <div class="menu card">
        <fieldset>
          <legend>Theme</legend>
          <label v-for="theme in THEMES" :key="theme.value">
            <v-radio
              name="theme"
              :value="theme.value"
              :model-value="choice === theme.value"
              @update:model-value="choose(theme.value)"
            />
            {{ theme.title }}
          </label>
        </fieldset>
        <v-bare-btn class="row" @click="help = true">How to read this, and keys</v-bare-btn>
        <NuxtLink class="row" to="/account">Signing in</NuxtLink>
        <v-bare-btn class="row" @click="leave">Sign out</v-bare-btn>
      </div>
    </v-menu>
  </header>
  <div v-if="!online" class="strip offline" role="status">
    You are offline. You see what the server said last; changes wait until you are back.
  </div>
  <main id="main" tabindex="-1"><slot /></main>
  <LazyCoursePanel v-if="panel.shown.value" :code="panel.shown.value" @close="panel.close()" />
  <LazyClockBar v-if="demo || session.who?.role === 'registrar'" />
  <Notice />
  <LazyHelpPanel v-if="help" v-model="help" />
</template>

<style scoped>
.skip {
  position: absolute;
  left: 8px;
  top: -40px;
  z-index: 20;
  background: var(--card);
  color: var(--ink);
  padding: 6px 12px;
}
.skip:focus {
  top: 8px;
}
.band {
  position: sticky;
  top: 0;
  z-index: 10;
  height: 64px;
  background: var(--band);
  color: #fff;
  display: flex;
  align-items: stretch;
  gap: 10px;
  padding: 0 20px;
}
.band :focus-visible {
  outline-color: #fff;
}
.mark {
  display: flex;
  flex-direction: column;
  justify-content: center;
  min-width: 118px;
  color: inherit;
  text-decoration: none;
}
.mark .display {
  font-size: 21px;
}
.college {
  font-size: 12px;
  color: var(--band-quiet);
}
nav {
  display: flex;
  flex: 1;
  min-width: 0;
}
.place {
  flex: 0 1 146px;
  min-width: 0;
  display: flex;
  flex-direction: column;
  justify-content: center;
  padding: 4px 10px 4px;
  color: #fff;
  text-decoration: none;
}
.place .display {
  font-size: 15.5px;
}
.state {
  font-size: 12px;
  color: var(--band-quiet);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.place[aria-current] {
  background: var(--paper);
  color: var(--dusk);
  margin-top: 8px;
  padding-bottom: 12px;
  border-radius: 10px 10px 0 0;
}
.place[aria-current] .state {
  color: var(--quiet);
}
.place[aria-current]:focus-visible {
  outline-color: var(--dusk);
  outline-offset: -4px;
}
.search {
  align-self: center;
  flex: 0 0 190px;
}
.here {
  align-self: end;
  margin-top: 8px;
  padding: 10px 14px 14px;
  border-radius: 10px 10px 0 0;
  background: var(--paper);
  color: var(--dusk);
  font-family: var(--display);
  font-size: 15.5px;
  font-weight: 650;
  text-decoration: none;
}
.person {
  display: flex;
  align-items: center;
  gap: 12px;
  background: none;
  border: 0;
  color: inherit;
  font: inherit;
  cursor: pointer;
  text-align: right;
}
.who {
  display: flex;
  flex-direction: column;
}
.who span {
  font-size: 12px;
  color: var(--band-quiet);
}
.avatar {
  display: grid;
  place-items: center;
  width: 34px;
  height: 34px;
  border-radius: 10px;
  background: #ebb771;
  color: #2b2036;
  font-weight: 700;
}
.menu {
  padding: 8px;
  min-width: 180px;
  color: var(--ink);
}
.menu fieldset {
  border: 0;
  padding: 4px 8px 8px;
  border-bottom: 1px solid var(--rule);
  margin-bottom: 6px;
}
.menu legend {
  color: var(--quiet);
  font-size: 12px;
}
.menu label {
  display: block;
  padding: 3px 0;
}
.row {
  display: block;
  width: 100%;
  text-align: left;
  padding: 6px 8px;
  border-radius: 6px;
}
a.row {
  color: inherit;
  text-decoration: none;
}
.row:hover {
  background: var(--dusk-tint);
}
.strip {
  background: var(--ember);
  color: var(--card);
  padding: 6px 20px;
  font-weight: 650;
}
main {
  flex: 1;
  outline: none;
}
@media (max-width: 1100px) {
  .who {
    display: none;
  }
}
@media (max-width: 720px) {
  .band {
    height: 52px;
    padding: 0 12px;
  }
  .mark {
    min-width: 0;
  }
  .college {
    display: none;
  }
  .search {
    flex: 1;
    margin-left: auto;
  }
  nav {
    position: fixed;
    inset: auto 0 0 0;
    z-index: 11;
    height: 64px;
    background: var(--band);
    padding: 0 4px;
  }
  .place {
    flex: 1 1 0;
    align-items: center;
    padding: 4px 2px;
    text-align: center;
  }
  .place .display {
    font-size: 13.5px;
  }
  .state {
    font-size: 10.5px;
    line-height: 1.15;
    max-width: 100%;
    white-space: normal;
  }
  .place[aria-current] {
    margin: 0 0 6px;
    padding: 4px 2px;
    border-radius: 0 0 10px 10px;
  }
}
@media print {
  .band,
  .strip {
    display: none;
  }
}
</style>
