<script setup lang="ts">
import { isBranch, type Rule } from '#core/requisites'
import { branchWords, leafText } from '#shared/catalog/texts'

/** A rule as the tree that it is read as. */
defineProps<{ rule: Rule }>()
</script>

<template>
  <p v-if="!isBranch(rule)">{{ leafText(rule) }}</p>
  <div v-else>
    <p class="quiet small">{{ branchWords(rule) }}</p>
    <div class="inner"><RuleShape v-for="(part, i) in rule.of" :key="i" :rule="part" /></div>
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
</style>
