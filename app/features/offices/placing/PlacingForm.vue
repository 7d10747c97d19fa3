<script setup lang="ts">
import { OFFICE_OVERRIDES, type OfficeOverride } from '#core/registration'
import { OVERRIDE_WORDS, type PlacingGroups } from '#shared/offices/placing'
import type { PlacingGroup } from '#shared/offices/placingRequests'
import { instantText } from '#shared/when'
import { count } from '#shared/words'
import type { PlacingSaid } from './usePlacingStudents'

/** Whom to place, what is set aside for it, and on whose word. */
const props = defineProps<{ groups: PlacingGroups; busy: boolean }>()
const emit = defineEmits<{ propose: [PlacingSaid] }>()
const college = useCollege()

interface Choice {
  value: string
  title: string
  students: number
  group: PlacingGroup
}
const choices = computed(() => {
  const { handedIn, blocks, openings } = props.groups
  const all: Choice[] = [
    {
      ...{ value: 'handedIn', students: handedIn, group: { kind: 'handedIn' } },
      title: 'Whoever handed in what they mean to take'
    }
  ]
  for (const { code, title, students, courses } of blocks)
    all.push({
      ...{ value: `block ${code}`, students, group: { kind: 'block', block: code } },
      title: `Block ${title}, in ${count(courses.length, 'course')} of its own`
    })
  for (const { id, title, opens, students } of openings)
    all.push({
      ...{ value: `opening ${id}`, students, group: { kind: 'opening', opening: id } },
      title: `Opening of ${instantText(opens, college.zone)}: ${title}`
    })
  return all.filter((one) => one.students)
})
const items = computed(() =>
  choices.value.map(({ value, title, students }) => ({ value, title: `${title} · ${students}` }))
)
const value = ref<string>()
watch(choices, (list) => (value.value ??= list[0]?.value), { immediate: true })
const chosen = computed(() => choices.value.find((one) => one.value === value.value))
const setAside = ref<OfficeOverride[]>([])
const consent = ref('')
/** Of those of an opening some may have handed in nothing, of a block nobody has to have. */
const asksConsent = computed(() => chosen.value && chosen.value.group.kind !== 'handedIn')
const lacksConsent = computed(() => asksConsent.value && consent.value.trim().length < 5)
const propose = () =>
  emit('propose', {
    group: chosen.value!.group,
    setAside: OFFICE_OVERRIDES.filter((one) => setAside.value.includes(one)),
    consent: consent.value.trim()
  })
const WHAT = {
  handedIn: 'Each in the courses that they handed in.',
  block: 'Each in the sections of the block.',
  opening: 'Each in the courses that they handed in, or, where they handed in nothing, that they plan.'
}
</script>

<template>
  <form class="card asked" @submit.prevent="propose">
    <v-select v-model="value" label="whom" :items="items" />
    <p v-if="chosen" class="quiet">
      {{ WHAT[chosen.group.kind] }} What they hold or wait for stays. Hours that they keep free stay free.
    </p>
    <fieldset>
      <legend>Set aside, where it stands in the way</legend>
      <v-checkbox
        v-for="one in OFFICE_OVERRIDES"
        :key="one"
        v-model="setAside"
        :value="one"
        :label="OVERRIDE_WORDS[one]"
        hide-details
      />
    </fieldset>
    <v-text-field
      v-if="asksConsent"
      v-model="consent"
      label="how those agreed who handed nothing in"
      maxlength="400"
      hint="It stands on each receipt."
      persistent-hint
    />
    <div class="acts">
      <v-btn type="submit" variant="flat" color="primary" :disabled="busy || !chosen || lacksConsent"
        >Work out who fits where</v-btn
      >
      <span class="quiet small">Nobody is registered by it.</span>
    </div>
  </form>
</template>

<style scoped>
.asked {
  display: grid;
  max-width: 720px;
  gap: 10px;
  padding: 14px 16px;
}
p {
  margin: 0;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}
</style>
