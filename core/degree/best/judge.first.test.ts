import { judged } from './judged'

judged(1, 1000)
