<script setup lang="ts">
import { roomsBody, type Building, type CollegePage } from '#shared/offices/college'
import { count } from '#shared/words'
import { readRoomLines, roomLines } from './rooms'

/** Buildings by campus, with their rooms and seats. */
const props = defineProps<{ page: CollegePage }>()
const emit = defineEmits<{ saved: [] }>()
const { draft, isChanged, busy, problem, errors, save, reset } = useCollegePart(
  () => props.page,
  roomsBody,
  ({ buildings }) => ({ part: 'rooms' as const, buildings }),
  () => emit('saved')
)
const campuses = computed(() => props.page.campuses.map(({ code, name }) => ({ value: code, title: name })))
const add = () =>
  draft.value.buildings.push({ id: null, campus: props.page.campuses[0]?.code ?? '', name: '', rooms: [] })
/** What is typed of rooms where it cannot be read as rooms yet. */
const typed = ref(new Map<Building, string>())
watch(
  () => props.page.buildings,
  () => typed.value.clear()
)
const linesOf = (building: Building) => typed.value.get(building) ?? roomLines(building.rooms)
function write(building: Building, text: string) {
  const before = props.page.buildings.find((one) => one.id === building.id)?.rooms ?? []
  const read = readRoomLines(text, before)
  typed.value.set(building, text)
  if ('rooms' in read) building.rooms = read.rooms
}
function faultOf(building: Building, i: number): string {
  const read = readRoomLines(linesOf(building), [])
  if ('line' in read) return `Line ${read.line} has to be a room, a comma and its seats, such as 101, 40.`
  const at = building.rooms.findIndex(
    (_, n) => errors(`buildings.${i}.rooms.${n}.name`) || errors(`buildings.${i}.rooms.${n}.seats`)
  )
  return at < 0 ? '' : errors(`buildings.${i}.rooms.${at}.name`) || errors(`buildings.${i}.rooms.${at}.seats`)
}
const isReadable = computed(() =>
  draft.value.buildings.every((one, i) => !faultOf(one, i).startsWith('Line'))
)
const saveRead = () => isReadable.value && save()
function undo() {
  typed.value.clear()
  reset()
}
</script>

<template>
  <CollegePart
    title="Rooms"
    about="One room to a line, with its seats: 101, 40. A room in which classes are held stays."
    :is-changed="isChanged"
    :busy="busy"
    :problem="problem"
    @save="saveRead"
    @reset="undo"
  >
    <div v-for="(building, i) in draft.buildings" :key="building.id ?? `new ${i}`" class="row building">
      <v-text-field
        v-model="building.name"
        :label="`building ${i + 1}`"
        maxlength="80"
        :error-messages="errors(`buildings.${i}.name`)"
      />
      <v-select v-model="building.campus" :label="`campus of building ${i + 1}`" :items="campuses" />
      <v-textarea
        :model-value="linesOf(building)"
        :label="`rooms of building ${i + 1}, ${count(building.rooms.length, 'room')}`"
        rows="3"
        :error-messages="faultOf(building, i)"
        @update:model-value="write(building, $event)"
      />
      <v-text-btn :aria-label="`Take building ${i + 1} out`" @click="draft.buildings.splice(i, 1)"
        >Take it out</v-text-btn
      >
    </div>
    <p v-if="errors('buildings')" class="stops" role="alert">{{ errors('buildings') }}</p>
    <div><v-text-btn @click="add">Add a building</v-text-btn></div>
  </CollegePart>
</template>

<style scoped>
.building {
  grid-template-columns: minmax(0, 2fr) minmax(0, 2fr) minmax(0, 3fr) auto;
}
@media (max-width: 720px) {
  .building {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
