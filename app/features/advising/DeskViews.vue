<script setup lang="ts">
import { STANDINGS } from '#core/requisites'
import type { DeskView, KeptDeskView } from '#shared/advising/desk'
import type { DeskRow } from '#shared/advising/responses'
import { STANDING_WORDS } from '#shared/words'

/** Whom of the desk is looked at: narrowed by program and standing, and kept by a name. */
const props = defineProps<{ rows: readonly DeskRow[]; kept: readonly KeptDeskView[] }>()
const view = defineModel<DeskView>({ required: true })
const staff = useStaff()
const { busy, once } = useOnce()

const programs = computed(() => [...new Set(props.rows.map((row) => row.programs))].sort())
const standings = computed(() =>
  STANDINGS.filter((one) => props.rows.some((row) => row.standing === one)).map((value) => ({
    value,
    title: STANDING_WORDS[value]
  }))
)
const isSame = (one: DeskView) =>
  one.reason === view.value.reason &&
  one.program === view.value.program &&
  one.standing === view.value.standing
const current = computed(() => props.kept.find(isSame))
const isNarrowed = computed(() => view.value.reason || view.value.program || view.value.standing)
const take = ({ reason, program, standing }: DeskView) => (view.value = { reason, program, standing })

const naming = ref(false)
const name = ref('')
async function keep() {
  if (!(await once(() => staff.keepView({ name: name.value.trim(), ...view.value })))) return
  naming.value = false
  name.value = ''
}
</script>

<template>
  <div class="views">
    <v-bare-btn
      v-for="one in kept"
      :key="one.id"
      class="kept"
      :aria-pressed="isSame(one)"
      @click="isSame(one) ? take({ reason: null, program: null, standing: null }) : take(one)"
      >{{ one.name }}</v-bare-btn
    >
    <v-select
      :model-value="view.program"
      label="program"
      :items="programs"
      clearable
      @update:model-value="view = { ...view, program: $event ?? null }"
    />
    <v-select
      :model-value="view.standing"
      label="standing"
      :items="standings"
      clearable
      @update:model-value="view = { ...view, standing: $event ?? null }"
    />
    <form v-if="naming" @submit.prevent="keep" @keydown.esc.stop="naming = false">
      <v-text-field v-model="name" label="a name for this view" maxlength="40" @vue:mounted="focusIn" />
      <v-btn type="submit" size="small" :disabled="busy || name.trim().length < 2">Keep it</v-btn>
      <v-text-btn type="button" @click="naming = false">Cancel</v-text-btn>
    </form>
    <v-text-btn v-else-if="current" :disabled="busy" @click="once(() => staff.dropView(current!.id))"
      >Let “{{ current.name }}” go</v-text-btn
    >
    <v-text-btn v-else-if="isNarrowed" @click="naming = true">Keep this view</v-text-btn>
  </div>
</template>

<style scoped>
.views,
form {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
}
.views {
  margin-bottom: 8px;
}
.v-select {
  flex: 0 1 190px;
}
.kept {
  padding: 2px 12px;
  border: 1px solid var(--rule);
  border-radius: 14px;
  background: var(--card);
}
.kept[aria-pressed='true'] {
  background: var(--dusk-tint);
  border-color: var(--dusk);
}
</style>
