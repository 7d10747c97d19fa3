<script setup lang="ts">
import type { DeskRow } from '#shared/advising/responses'

/** Something for several students, some of whom may be left out: what is said above them, and the one action below. */
defineProps<{
  title: string
  rows: readonly DeskRow[]
  leftOut: ReadonlySet<number>
  /** What is done with each, as in `Hand over Imke Varga`. */
  verb: string
  act: string
  disabled: boolean
  busy: boolean
  /** Why it cannot be done yet. */
  lacks?: string
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ choose: [row: DeskRow, isChosen: boolean]; act: [] }>()
const heading = useId()
</script>

<template>
  <v-dialog v-model="open" max-width="720" :aria-labelledby="heading">
    <div class="card many">
      <h2 :id="heading">{{ title }}</h2>
      <slot />
      <ul>
        <li v-for="row in rows" :key="row.id">
          <v-checkbox-btn
            :model-value="!leftOut.has(row.id)"
            :aria-label="`${verb} ${row.name}`"
            @update:model-value="(on) => emit('choose', row, Boolean(on))"
          />
          <slot name="student" :row="row">{{ row.name }} <span class="quiet">{{ row.programs }}</span></slot>
        </li>
      </ul>
      <div class="acts">
        <v-btn variant="flat" color="primary" :disabled="disabled || busy" @click="emit('act')">{{
          act
        }}</v-btn>
        <v-btn :disabled="busy" @click="open = false">Close</v-btn>
        <span v-if="lacks !== undefined" class="quiet small" role="status">{{ lacks }}</span>
      </div>
    </div>
  </v-dialog>
</template>

<style scoped>
.many {
  padding: 18px;
  max-height: 88vh;
  overflow-y: auto;
  color: var(--ink);
}
.many :deep(p) {
  margin: 4px 0 8px;
}
ul {
  list-style: none;
  margin: 8px 0;
  padding: 0;
  max-height: 32vh;
  overflow-y: auto;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 10px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}
</style>
