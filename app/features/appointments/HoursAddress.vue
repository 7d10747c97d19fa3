<script setup lang="ts">
/** The private address at which a calendar program reads an advisor's appointments. */
const props = defineProps<{ addressKey: string | null }>()
const staff = useStaff()
const told = ref('')
const address = computed(() => props.addressKey && `${location.origin}/api/calendars/${props.addressKey}.ics`)

async function copy() {
  try {
    await navigator.clipboard.writeText(address.value!)
    told.value = 'Copied.'
  } catch {
    told.value = 'Copying is not allowed here; mark the address instead.'
  }
}
</script>

<template>
  <section class="card address" aria-labelledby="address-title">
    <h2 id="address-title">In your calendar</h2>
    <template v-if="address">
      <p class="quiet">Whoever has this address reads your appointments.</p>
      <code>{{ address }}</code>
      <div class="acts">
        <v-btn size="small" @click="copy">Copy it</v-btn>
        <v-text-btn @click="staff.setAddress(true)">Make another</v-text-btn>
        <v-text-btn @click="staff.setAddress(false)">Withdraw it</v-text-btn>
        <span role="status" class="small">{{ told }}</span>
      </div>
    </template>
    <template v-else>
      <p class="quiet">A calendar program can follow your appointments at a private address.</p>
      <v-btn size="small" @click="staff.setAddress(true)">Make an address</v-btn>
    </template>
  </section>
</template>

<style scoped>
.address {
  padding: 12px 16px;
}
p {
  margin: 2px 0 6px;
}
code {
  display: block;
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  margin-top: 6px;
}
</style>
