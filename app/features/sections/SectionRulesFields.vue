<script setup lang="ts">
import type { OfferedCourse } from '#shared/sections/offering'
import type { SectionRules } from '#shared/sections/requests'
import { STANDINGS } from '#core/requisites'
import { capital, STANDING_WORDS } from '#shared/words'

/** What holds of a section beside its hours and its seats. */
const rules = defineModel<SectionRules>({ required: true })
defineProps<{
  offered: OfferedCourse
  /** A component: whom it is for is said of its section. */
  part?: boolean
  /** Its room is said with its hours. */
  withoutRoom?: boolean
  fields: ReadonlyMap<string, string>
}>()

const forSome = computed({
  get: () => rules.value.onlyFor !== null,
  set: (some) => (rules.value.onlyFor = some ? { programs: [], standings: [] } : null)
})
const standings = STANDINGS.map((value) => ({ value, title: capital(STANDING_WORDS[value]) }))
const named = (list: readonly { code: string; title: string }[]) =>
  list.map((one) => ({ value: one.code, title: one.title }))

/** One list to choose from: seats are kept for a program or for a block. */
type Kept = SectionRules['reserved'][number]
const keptFor = ({ program, block }: Kept) => (program === null ? `block ${block}` : `program ${program}`)
function keepFor(one: Kept, chosen: string) {
  const [kind, code] = [chosen.slice(0, chosen.indexOf(' ')), chosen.slice(chosen.indexOf(' ') + 1)]
  Object.assign(one, kind === 'block' ? { block: code, program: null } : { program: code, block: null })
}
const keepChoices = (offered: OfferedCourse) => [
  ...offered.programs.map((one) => ({ value: `program ${one.code}`, title: one.title })),
  ...offered.blocks.map((one) => ({ value: `block ${one.code}`, title: `block ${one.title}` }))
]
function keepMore(offered: OfferedCourse) {
  const [first] = offered.programs
  if (first) rules.value.reserved.push({ program: first.code, block: null, seats: 1 })
}
</script>

<template>
  <div class="rules">
    <v-text-field v-model="rules.topic" label="Topic" maxlength="120" :error-messages="fields.get('topic')" />
    <v-autocomplete
      v-model="rules.instructors"
      label="Instructors"
      multiple
      chips
      closable-chips
      :items="offered.instructors.map((one) => ({ value: one.id, title: one.name }))"
      :error-messages="fields.get('instructor')"
    />
    <v-autocomplete
      v-if="!withoutRoom"
      v-model="rules.room"
      label="Room"
      clearable
      :items="offered.rooms.map((one) => ({ value: one.id, title: `${one.name} · ${one.seats} places` }))"
      :error-messages="fields.get('room')"
    />
    <div class="pair">
      <v-text-field
        v-model.number="rules.line"
        type="number"
        min="0"
        max="500"
        label="Places in line"
        :error-messages="fields.get('line')"
      />
      <v-text-field
        v-model.number="rules.fee"
        type="number"
        min="0"
        step="0.01"
        label="Fee beside that of the course"
        :error-messages="fields.get('fee')"
      />
    </div>
    <template v-if="!part">
      <label><v-checkbox-btn v-model="rules.permissionNeeded" /> the instructor has to agree first</label>
      <label><v-checkbox-btn v-model="rules.officeOnly" /> students are placed by an office only</label>
      <v-select
        v-model="rules.block"
        label="Belongs to block"
        clearable
        :items="named(offered.blocks)"
        :error-messages="fields.get('block')"
      />
      <label><v-checkbox-btn v-model="forSome" /> only for some students</label>
      <div v-if="rules.onlyFor" class="indent">
        <v-select
          v-model="rules.onlyFor.programs"
          label="of one of these programs"
          multiple
          :items="named(offered.programs)"
          :error-messages="fields.get('onlyFor')"
        />
        <v-select
          v-model="rules.onlyFor.standings"
          label="in one of these years"
          multiple
          :items="standings"
        />
      </div>
      <fieldset>
        <legend>Seats kept</legend>
        <div v-for="(one, i) in rules.reserved" :key="i" class="kept">
          <v-select
            :model-value="keptFor(one)"
            :label="`Kept ${i + 1} for`"
            :items="keepChoices(offered)"
            @update:model-value="keepFor(one, $event)"
          />
          <v-text-field v-model.number="one.seats" type="number" min="1" :label="`Seats kept ${i + 1}`" />
          <v-text-btn @click="rules.reserved.splice(i, 1)">Keep none for them</v-text-btn>
        </div>
        <p v-if="fields.get('reserved')" class="stops">{{ fields.get('reserved') }}</p>
        <v-text-btn v-if="offered.programs.length" @click="keepMore(offered)">Keep seats for some</v-text-btn>
      </fieldset>
    </template>
  </div>
</template>

<style scoped>
.rules {
  display: grid;
  gap: 8px;
  width: 100%;
}
.rules .v-input {
  width: 100%;
  min-width: 0;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.indent {
  display: grid;
  gap: 8px;
  padding-left: 30px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
}
legend {
  font-weight: 600;
  padding: 0;
}
.kept {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 100px auto;
  gap: 8px;
  align-items: center;
  margin: 4px 0;
}
@media (max-width: 480px) {
  .kept {
    grid-template-columns: minmax(0, 1fr) 100px;
  }
}
</style>
