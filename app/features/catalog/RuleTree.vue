<script setup lang="ts">
import type { RuleResult } from '#core/requisites'
import { branchWords, leafText } from '#shared/catalog/texts'

/** A prerequisite as a readable tree: what is there, what is assumed, what is missing. */
defineProps<{ result: RuleResult }>()
const word = (r: RuleResult) => (r.met ? (r.assumed ? 'assumed' : 'there') : 'missing')
</script>

<template>
  <p v-if="result.kind === 'leaf'" class="leaf" :class="word(result)">
    <span class="mark" aria-hidden="true" />{{ leafText(result.leaf) }}
    <span class="quiet small">{{ word(result) }}</span>
  </p>
  <div v-else>
    <p class="quiet small">{{ branchWords(result) }}</p>
    <div class="inner"><RuleTree v-for="(part, i) in result.of" :key="i" :result="part" /></div>
  </div>
</template>

<style scoped>
p {
  margin: 0;
}
.inner {
  border-left: 2px solid var(--rule);
  padding-left: 10px;
}
.mark {
  display: inline-block;
  width: 9px;
  height: 9px;
  border-radius: 50%;
  border: 1.5px dotted var(--quiet);
  margin-right: 7px;
}
.there .mark {
  background: var(--dusk);
  border: 1.5px solid var(--dusk);
}
.assumed .mark {
  border: 1.5px dashed var(--dusk);
}
</style>
