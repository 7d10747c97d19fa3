<script setup lang="ts">
/** What would open more weeks, the most first. */
const student = useStudent()
const finding = useFinding()
const { mustText, openers } = useMusts()
</script>

<template>
  <section v-if="openers.length" class="card openers" aria-labelledby="openers-title">
    <h2 id="openers-title">What would open more weeks</h2>
    <ul>
      <li v-for="one in openers" :key="mustText(one.must)">
        <span>{{ one.must.kind === 'group' ? 'without ' : '' }}{{ mustText(one.must) }}</span>
        <v-text-btn v-if="student.own" @click="finding.letGo(one.must)">
          Let go<span class="visually-hidden"> of {{ mustText(one.must) }}</span>
        </v-text-btn>
        <strong>{{ one.fit === undefined ? 'many' : `+${one.fit - (finding.counted?.fit ?? 0)}` }}</strong>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.openers {
  padding: 10px 14px;
}
.openers ul {
  list-style: none;
  padding: 0;
}
.openers li {
  display: flex;
  gap: 10px;
  align-items: baseline;
  padding: 3px 0;
}
.openers li span:first-child {
  flex: 1;
}
</style>
