<script setup lang="ts">
import { useOnline } from '@vueuse/core'

const props = defineProps<{ places: Place[] }>()
const session = useWho()
const college = useCollege()
const route = useRoute()

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
    <AccountMenu @help="help = true" />
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
