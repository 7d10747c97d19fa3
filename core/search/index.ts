export { courseTests, inTheWay, type CourseFilter, type CourseQuestion, type FoundCourse } from './courses'
export {
  patternOf,
  placeOf,
  sectionTests,
  type FoundSection,
  type SectionFilter,
  type SectionQuestion
} from './sections'
export { filterByFacets, type Faceted } from './facets'
