<script setup lang="ts">
/** One thing that is asked of a list: what it asks, how much it alone hides, and the way to drop it. */
const props = defineProps<{
  title: string
  /** What it asks now; undefined while it asks nothing. */
  asks?: string | undefined
  excluded?: number | undefined
  /** It is either asked or not: no choices to open. */
  toggle?: boolean
}>()
const emit = defineEmits<{ drop: []; ask: [] }>()
function turn() {
  if (props.asks === undefined) emit('ask')
  else emit('drop')
}
</script>

<template>
  <span class="filter" :class="{ active: asks !== undefined }">
    <v-bare-btn v-if="toggle" class="what" :aria-pressed="asks !== undefined" @click="turn">
      {{ title }}
    </v-bare-btn>
    <v-menu v-else :close-on-content-click="false" location="bottom start">
      <template #activator="{ props: menu }">
        <v-bare-btn class="what" v-bind="menu">{{ asks === undefined ? title : asks }}</v-bare-btn>
      </template>
      <div class="card choices" role="group" :aria-label="title"><slot /></div>
    </v-menu>
    <template v-if="asks !== undefined">
      <span v-if="excluded" class="excluded">hides {{ excluded }}</span>
      <v-bare-btn class="drop" :aria-label="`Drop: ${title}`" @click="emit('drop')">
        <span aria-hidden="true">×</span>
      </v-bare-btn>
    </template>
  </span>
</template>

<style scoped>
.filter {
  display: inline-flex;
  align-items: center;
  min-height: 28px;
  border: 1px dashed var(--quiet);
  border-radius: 8px;
  background: var(--card);
}
.filter.active {
  border: 1px solid var(--dusk);
  background: var(--dusk-tint);
}
.what {
  padding: 3px 10px;
}
.active .what {
  font-weight: 650;
  color: var(--dusk);
}
.excluded {
  font-size: 12px;
  color: var(--quiet);
}
.drop {
  padding: 2px 9px;
  font-size: 16px;
  line-height: 1;
  color: var(--dusk);
}
.choices {
  padding: 10px 12px;
  max-height: 60vh;
  overflow-y: auto;
  min-width: 200px;
  max-width: min(420px, 92vw);
  color: var(--ink);
}
</style>
