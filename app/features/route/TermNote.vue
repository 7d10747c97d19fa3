<script setup lang="ts">
import type { Term } from '#core/catalog'

/** What is noted on a term of the plan, for the student and the advisors. */
const props = defineProps<{ term: Term }>()
const student = useStudent()
const changes = useChanges()
const editing = ref(false)
const text = ref('')
const note = computed(() => student.picture?.termNotes.find((one) => one.term === props.term.code))

function start() {
  text.value = note.value?.text ?? ''
  editing.value = true
}
function save() {
  if (!editing.value) return
  editing.value = false
  const wanted = text.value.trim() || null
  if (wanted !== (note.value?.text ?? null)) void changes.writeTermNote(props.term.code, wanted)
}
</script>

<template>
  <form v-if="editing" @submit.prevent="save">
    <v-text-field
      v-model="text"
      maxlength="400"
      :aria-label="`Note on ${term.name}`"
      @vue:mounted="focusIn"
      @blur="save"
      @keydown.stop="$event.key === 'Escape' && (editing = false)"
    />
  </form>
  <v-bare-btn
    v-else-if="student.own"
    class="note small"
    :class="{ none: !note }"
    :aria-label="note ? `Note on ${term.name}: ${note.text}. Change it` : `Add a note on ${term.name}`"
    @click="start"
  >
    {{ note?.text ?? 'add a note' }}
  </v-bare-btn>
  <span v-else-if="note" class="note small">{{ note.text }}</span>
</template>

<style scoped>
.note {
  display: block;
  max-width: 100%;
  text-align: left;
  font-style: italic;
  overflow-wrap: anywhere;
}
.none {
  color: var(--quiet);
  font-style: normal;
}
button.note:hover {
  text-decoration: underline;
}
.v-input {
  width: 100%;
}
</style>
