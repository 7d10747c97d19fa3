export { decideCourse, type CourseDecision } from './course'
export {
  afterGroup,
  decide,
  generalRefusals,
  givenBack,
  type Hold,
  type LineDecision,
  type RegistrationFacts,
  type SignOffPolicy
} from './decide'
export { groupLines } from './group'
export { openingFor, type Opening, type OpeningPerson } from './opening'
export { GENERAL_REFUSALS, pickedOptions, rehearse } from './rehearse'
