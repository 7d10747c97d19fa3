import { judged } from './testing/judged'

judged(1001, 2000)
