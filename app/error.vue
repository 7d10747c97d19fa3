<script setup lang="ts">
import { AppFrame } from '#components'
import type { NuxtError } from '#app'

/** What stands in the place of a page that is not there, not for this person, or failed. */
const props = defineProps<{ error: NuxtError }>()
useShell()
const session = useWho()
const places = useOwnPlaces()
const asked = useRoute().fullPath
/** The name of the college in the band; where it cannot be had, the band stands without. */
onMounted(
  () =>
    session.who &&
    useCollege()
      .load()
      .catch(() => undefined)
)

const kind = computed(() => {
  if (props.error.statusCode === 404) return 'absent'
  return props.error.statusCode === 403 ? 'foreign' : 'failed'
})
const heading = computed(
  () =>
    ({
      absent: 'There is no page at this address',
      foreign: 'This page is not one of yours',
      failed: 'This cannot be shown at the moment'
    })[kind.value]
)
const text = computed(
  () =>
    ({
      absent: `Nothing stands at ${asked}. It may be mistyped, or lead to something that is gone.`,
      foreign: `What stands at ${asked} is for others at the college.`,
      failed: props.error.message
    })[kind.value]
)
useHead({ title: () => `${heading.value} · Ridgeway` })
/** The session is asked again after a failure, so that signing in works once the server is back. */
const away = () => clearError({ redirect: homeOf(session.who) })
const again = () => reloadNuxtApp({ path: asked, force: true })
</script>

<template>
  <v-app>
    <component :is="session.who ? AppFrame : 'main'" :places="places">
      <div class="page">
        <div class="card said" role="alert">
          <h1>{{ heading }}</h1>
          <p>{{ text }}</p>
          <v-btn v-if="kind === 'failed'" variant="flat" color="primary" @click="again">Try again</v-btn>
          <v-btn v-if="session.who" @click="away">Back to {{ places[0]?.name ?? 'the beginning' }}</v-btn>
          <v-btn v-else-if="kind !== 'failed'" @click="away">Sign in</v-btn>
        </div>
      </div>
    </component>
  </v-app>
</template>

<style scoped>
.said {
  padding: 24px;
  max-width: 620px;
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.said h1,
.said p {
  flex: 0 0 100%;
  overflow-wrap: anywhere;
}
</style>
