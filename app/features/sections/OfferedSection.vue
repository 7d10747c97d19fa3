<script setup lang="ts">
import type { Section } from '#core/week'
import type { OfferedCourse } from '#shared/sections/offering'
import { sectionHours, sectionName } from '#shared/week/texts'
import { saidOfRules } from '#shared/sections/texts'

/** A section as those who plan it see it: its seats are set here, it is moved or cancelled. */
const props = defineProps<{
  section: Section
  offered: OfferedCourse
  /** A component of the section around it. */
  part?: boolean
}>()
const emit = defineEmits<{ done: [] }>()
const notice = useNotice()
const { busy, problem, attempt } = useAttempt()

const seats = ref('')
watch(
  () => props.section.capacity,
  (capacity) => (seats.value = String(capacity)),
  { immediate: true }
)
const isChanged = computed(() => /^\d+$/.test(seats.value) && Number(seats.value) !== props.section.capacity)
const set = () =>
  attempt(async () => {
    const body = { seats: Number(seats.value) }
    await api(`/api/sections/${props.section.code}/seats`, { method: 'POST', body })
    notice.say(`${sectionName(props.section)} has ${body.seats} seats.`)
    emit('done')
  })
const holds = computed(() => {
  const rules = props.offered.rules[props.section.code]
  return rules && saidOfRules(rules, props.offered)
})
const place = computed(() => props.section.meetings[0]?.room ?? 'no room yet')
</script>

<template>
  <component
    :is="part ? 'div' : 'section'"
    class="offered"
    :class="part ? 'part' : 'card'"
    :role="part ? 'group' : undefined"
    :aria-label="sectionName(section)"
  >
    <div class="head">
      <component :is="part ? 'h3' : 'h2'"
        >{{ sectionName(section) }} <span class="quiet">{{ section.code }}</span></component
      >
      <span class="quiet">{{ section.taken }} taken · {{ section.waiting }} in line</span>
    </div>
    <p>
      {{ sectionHours(section) }} · {{ place }}
      <span v-if="section.instructors.length" class="quiet">· {{ section.instructors.join(', ') }}</span>
    </p>
    <p v-if="holds" class="quiet">{{ holds }}</p>
    <form class="seats" @submit.prevent="set">
      <v-text-field
        v-model="seats"
        inputmode="numeric"
        maxlength="4"
        :label="`Seats of ${section.number}`"
        hide-details
      />
      <v-btn type="submit" :disabled="busy || !isChanged">Set</v-btn>
      <span v-if="problem" class="stops" role="alert">{{ problem }}</span>
    </form>
    <SectionOffice :section="section" @done="emit('done')">
      <SectionRules :section="section" :offered="offered" @done="emit('done')" />
    </SectionOffice>
    <slot />
  </component>
</template>

<style scoped>
.offered {
  padding: 10px 14px;
}
.part {
  border-top: 1px solid var(--rule);
  padding: 8px 0 0 14px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 4px 14px;
  align-items: baseline;
}
h2,
h3,
p {
  margin: 0 0 4px;
}
h2 .quiet,
h3 .quiet {
  font: 400 13.5px var(--body);
}
.seats {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.seats .v-input {
  flex: none;
  width: 112px;
  min-width: 0;
}
</style>
