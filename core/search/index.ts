export { courseTests, inTheWay, type CourseFilter, type CourseQuestion, type FoundCourse } from './courses'
export { sieve, type Sieved } from './sieve'
