<script setup lang="ts">
/** A note of a line, written where it is read. */
const props = defineProps<{
  text: string | null
  /** What it is about, as in "Note on Autumn 2027". */
  about: string
  most: number
  own: boolean
}>()
const emit = defineEmits<{ change: [text: string | null] }>()
const editing = ref(false)
const draft = ref('')

function start() {
  draft.value = props.text ?? ''
  editing.value = true
}
function save() {
  if (!editing.value) return
  editing.value = false
  const wanted = draft.value.trim() || null
  if (wanted !== props.text) emit('change', wanted)
}
</script>

<template>
  <form v-if="editing" @submit.prevent="save">
    <v-text-field
      v-model="draft"
      :maxlength="most"
      :aria-label="`Note on ${about}`"
      @vue:mounted="focusIn"
      @blur="save"
      @keydown.stop="$event.key === 'Escape' && (editing = false)"
    />
  </form>
  <v-bare-btn
    v-else-if="own"
    class="note small"
    :class="{ none: !text }"
    :aria-label="text ? `Note on ${about}: ${text}. Change it` : `Add a note on ${about}`"
    @click="start"
  >
    {{ text ?? 'add a note' }}
  </v-bare-btn>
  <span v-else-if="text" class="note small">{{ text }}</span>
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
