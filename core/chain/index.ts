export { factorsOf, graphOf, type CourseGraph, type Factors } from './factors'
export { earliestFinish, type ChainLink, type Finish, type FinishQuestion } from './finish'
