<script setup lang="ts">
import type { Section } from '#core/week'
import type { OfferedCourse } from '#shared/sections/offering'
import { rulesBody, type SectionRules } from '#shared/sections/requests'
import { sectionName } from '#shared/week/texts'
import { count } from '#shared/words'

/** What holds of a section that is there: whom it is for, who teaches it and where, its line, its fee, seats kept. */
const props = defineProps<{ section: Section; offered: OfferedCourse }>()
const emit = defineEmits<{ done: [] }>()
const notice = useNotice()
const { busy, problem, fields, attempt } = useAttempt()
const open = ref(false)
const heading = useId()
const draft = ref<SectionRules>()
const now = computed(() => props.offered.rules[props.section.code])
function start() {
  draft.value = structuredClone(toRaw(now.value))
  problem.value = ''
  open.value = true
}
const read = computed(() => rulesBody.safeParse(draft.value))
const isChanged = computed(() => JSON.stringify(draft.value) !== JSON.stringify(now.value))
const save = () =>
  attempt(async () => {
    await api(`/api/sections/${props.section.code}/rules`, { method: 'POST', body: read.value.data })
    notice.say(`${sectionName(props.section)} is as you have set it.`)
    open.value = false
    emit('done')
  })
</script>

<template>
  <v-btn v-if="now" @click="start">Rules, instructor, room …</v-btn>
  <v-dialog v-model="open" max-width="560" scrollable :aria-labelledby="heading">
    <form v-if="draft" class="card" @submit.prevent="save">
      <h2 :id="heading">{{ sectionName(section) }}</h2>
      <p class="quiet small">
        {{ count(section.taken, 'seat') }} taken or offered: these stay, whoever it is for from now on. What
        is kept for nobody any more goes to the line first.
      </p>
      <SectionRulesFields
        v-model="draft"
        :offered="offered"
        :part="section.parent !== null"
        :without-room="!section.meetings.length"
        :fields="fields"
      />
      <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
      <div class="acts">
        <v-btn type="submit" variant="flat" color="primary" :disabled="busy || !read.success || !isChanged"
          >Save</v-btn
        >
        <v-btn @click="open = false">Cancel</v-btn>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 10px;
  padding: 18px;
  color: var(--ink);
  overflow-y: auto;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
