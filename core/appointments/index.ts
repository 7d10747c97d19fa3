export { overlap, slotsOf, type Away, type OfferedSlot, type OfferedTime, type Slot } from './slots'
