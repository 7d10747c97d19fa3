export { decideCourse, type CourseDecision } from './course'
export { decide, generalRefusals, type LineDecision } from './decide'
export {
  OFFICE_OVERRIDES,
  type Hold,
  type OfficeOverride,
  type Placing,
  type RegistrationFacts
} from './facts'
export { seatRefusal } from './optionDecision'
export { afterGroup, givenBack, givenUpFor } from './step'
export {
  afterDrop,
  decideDrop,
  dropMark,
  endsFullTime,
  FULL_TIME_CREDITS,
  type DropDates,
  type DropDecision,
  type SessionDates
} from './drop'
export { groupLines } from './group'
export {
  decideLine,
  isOfSeats,
  mayBeOffered,
  offerEnds,
  type LineFacts,
  type LinePolicy,
  type LineTaking
} from './line'
export { drawLots } from './lots'
export { nearestOption } from './nearest'
export { isScarce, outlook, scarceCourses, type Outlook, type OutlookLine } from './outlook'
export { openingFor, type Opening, type OpeningPerson } from './opening'
export { choiceOf, GENERAL_REFUSALS, pickedOptions, rehearse } from './rehearse'
export { isStanding, SIGN_OFF_POLICIES, strictestPolicy, type SignOff, type SignOffPolicy } from './signOff'
export { permissionFor } from './permission'
