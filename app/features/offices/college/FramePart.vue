<script setup lang="ts">
import { frameBody, type CollegePage } from '#shared/offices/college'

/** What the college is called, its time, its campuses and how far they are apart. */
const props = defineProps<{ page: CollegePage }>()
const emit = defineEmits<{ saved: [] }>()
const { draft, isChanged, busy, problem, errors, save, reset } = useCollegePart(
  () => props.page,
  frameBody,
  ({ name, timeZone, campuses, travel }) => ({
    ...{ part: 'frame' as const, name, timeZone, travel },
    campuses: campuses.length ? campuses : [{ id: null as number | null, code: '', name: '' }]
  }),
  () => emit('saved')
)
const zones = Intl.supportedValuesOf('timeZone')
/** Every way from one campus to another; ways that nothing is said of take no time. */
const ways = computed(() => {
  const codes = draft.value.campuses.map((one) => one.code).filter(Boolean)
  return codes.flatMap((from) => codes.filter((to) => to !== from).map((to) => ({ from, to })))
})
const minutes = (from: string, to: string) =>
  draft.value.travel.find((one) => one.from === from && one.to === to)?.minutes ?? 0
function setMinutes(from: string, to: string, text: string) {
  const others = draft.value.travel.filter((one) => one.from !== from || one.to !== to)
  draft.value.travel = [...others, { from, to, minutes: Number(text) }]
}
function drop(i: number) {
  const [gone] = draft.value.campuses.splice(i, 1)
  draft.value.travel = draft.value.travel.filter((one) => one.from !== gone!.code && one.to !== gone!.code)
}
</script>

<template>
  <CollegePart
    title="The college"
    about="Its name and its time, and the campuses with the minutes that a change of campus takes."
    :is-changed="isChanged"
    :busy="busy"
    :problem="problem"
    @save="save"
    @reset="reset"
  >
    <div class="row frame">
      <v-text-field v-model="draft.name" label="name" maxlength="120" :error-messages="errors('name')" />
      <v-autocomplete
        v-model="draft.timeZone"
        label="time zone"
        :items="zones"
        :readonly="page.hasTerms"
        :hint="page.hasTerms ? 'stays: the instants of terms are in it' : ''"
        persistent-hint
        auto-select-first
        :error-messages="errors('timeZone')"
      />
    </div>
    <div v-for="(campus, i) in draft.campuses" :key="i" class="row campus">
      <v-text-field
        v-model="campus.code"
        :label="`code of campus ${i + 1}, such as HILL`"
        maxlength="12"
        :readonly="campus.id !== null"
        :error-messages="errors(`campuses.${i}.code`)"
      />
      <v-text-field
        v-model="campus.name"
        :label="`name of campus ${i + 1}`"
        maxlength="80"
        :error-messages="errors(`campuses.${i}.name`)"
      />
      <v-text-btn :aria-label="`Take campus ${i + 1} out`" @click="drop(i)">Take it out</v-text-btn>
    </div>
    <p v-if="errors('campuses')" class="stops" role="alert">{{ errors('campuses') }}</p>
    <div>
      <v-text-btn @click="draft.campuses.push({ id: null, code: '', name: '' })">Add a campus</v-text-btn>
    </div>
    <div v-if="ways.length" class="row ways">
      <v-text-field
        v-for="{ from, to } in ways"
        :key="`${from} ${to}`"
        :model-value="minutes(from, to)"
        type="number"
        min="0"
        :label="`minutes from ${from} to ${to}`"
        @update:model-value="setMinutes(from, to, $event)"
      />
    </div>
  </CollegePart>
</template>

<style scoped>
.frame {
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
}
.campus {
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr) auto;
}
.ways {
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
}
@media (max-width: 720px) {
  .frame,
  .campus {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
