import { judged } from './testing/judged'

judged(1, 1000)
