<script setup lang="ts">
import type { InSection, TaughtSection } from '#shared/sections/teaching'
import { seatsText, sectionHours, sectionName } from '#shared/week/texts'
import { count, KIND_WORDS } from '#shared/words'

/** Sections with their hours and seats; each opens to who is in it and who stands in line. */
defineProps<{ sections: readonly TaughtSection[] }>()
const opened = ref<string>()

const WHERE = { registered: 'registered', waiting: 'in line' } as const
const peopleOf = ({ registered, waiting }: TaughtSection) => [
  ...registered.map((one, i) => ({ ...one, n: i + 1, where: WHERE.registered })),
  ...waiting.map((one, i) => ({ ...one, n: i + 1, where: WHERE.waiting }))
]
function save(of: TaughtSection) {
  const lines = peopleOf(of).map(({ name, number, mail, where, n }) => ({
    Name: name,
    Number: number,
    Mail: mail ?? '',
    State: where === WHERE.waiting ? `${where}, ${n}` : where
  }))
  const name = `class-${of.section.course.replace(' ', '-')}-${of.section.number}-${of.section.term}.csv`
  saveTable(name, lines)
}
const mailTo = (people: readonly InSection[]) =>
  `mailto:?bcc=${people.flatMap((one) => (one.mail ? [encodeURIComponent(one.mail)] : [])).join(',')}`
</script>

<template>
  <v-table class="card">
    <caption class="visually-hidden">
      Sections with hours, seats, who is in them and in line
    </caption>
    <thead>
      <tr>
        <th scope="col">Section</th>
        <th scope="col">Meets</th>
        <th scope="col" class="wide">Instructors</th>
        <th scope="col">Seats</th>
        <th scope="col" class="wide">In line</th>
        <th scope="col"><span class="visually-hidden">Class list</span></th>
      </tr>
    </thead>
    <tbody>
      <template v-for="one in sections" :key="one.section.code">
        <tr :class="{ gone: one.section.cancelled }">
          <th scope="row">
            {{ sectionName(one.section) }} <span class="quiet">{{ KIND_WORDS[one.section.kind] }}</span>
            <span class="quiet small title">{{ one.title }}</span>
          </th>
          <td>{{ one.section.cancelled ? 'cancelled' : sectionHours(one.section) }}</td>
          <td class="wide">{{ one.section.instructors.join(', ') }}</td>
          <td>{{ seatsText(one.section) }}</td>
          <td class="wide">{{ one.waiting.length || '' }}</td>
          <td>
            <v-text-btn
              :aria-expanded="opened === one.section.code"
              :aria-label="`Class list of ${sectionName(one.section)}`"
              @click="opened = opened === one.section.code ? undefined : one.section.code"
              >{{ count(one.registered.length, 'student') }}</v-text-btn
            >
          </td>
        </tr>
        <tr v-if="opened === one.section.code">
          <td colspan="6">
            <p class="row">
              <v-text-btn v-if="peopleOf(one).length" @click="save(one)">Save the list (CSV)</v-text-btn>
              <a v-if="one.registered.length" class="textlink" :href="mailTo(one.registered)"
                >Write to all who are in it</a
              >
            </p>
            <ol v-if="one.registered.length" class="people">
              <li v-for="person in one.registered" :key="person.number">
                {{ person.name }} <span class="quiet">{{ person.number }}</span>
              </li>
            </ol>
            <p v-else class="quiet">Nobody is registered yet.</p>
            <template v-if="one.waiting.length">
              <h3>In line</h3>
              <ol class="people">
                <li v-for="person in one.waiting" :key="person.number">
                  {{ person.name }} <span class="quiet">{{ person.number }}</span>
                </li>
              </ol>
            </template>
          </td>
        </tr>
      </template>
    </tbody>
  </v-table>
</template>

<style scoped>
th[scope='row'] {
  text-align: left;
  font-weight: 600;
}
.title {
  display: block;
  font-weight: 400;
}
.gone {
  opacity: 0.6;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  margin: 4px 0;
}
@media (max-width: 720px) {
  .wide {
    display: none;
  }
}
.people {
  columns: 220px 4;
  margin: 4px 0 8px;
}
</style>
