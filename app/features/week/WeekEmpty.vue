<script setup lang="ts">
/** What to do first where no course is planned in the term. */
const student = useStudent()
const standing = useStanding()
</script>

<template>
  <div class="card empty">
    <h2>Nothing is {{ standing.closedWhy ? 'registered' : 'planned' }} for {{ standing.term?.name }}</h2>
    <p v-if="standing.closedWhy">{{ standing.closedWhy }}</p>
    <template v-else>
      <p>
        {{ student.own ? 'Put courses on your route first; their' : 'Once courses are on the route, their' }}
        sections appear here beside the week.
      </p>
      <v-btn
        v-if="student.own"
        variant="flat"
        color="primary"
        :to="`/students/${student.view?.student.id}/degree`"
        >See what your degree needs</v-btn
      >
    </template>
    <NuxtLink class="textlink" :to="`/students/${student.view?.student.id}/week/sections`"
      >Search all sections</NuxtLink
    >
  </div>
</template>

<style scoped>
.empty {
  padding: 28px;
}
.empty p {
  margin: 6px 0 14px;
}
.empty .textlink {
  margin-left: 14px;
}
</style>
