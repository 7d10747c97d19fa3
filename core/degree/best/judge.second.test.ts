import { judged } from './judged'

judged(1001, 2000)
