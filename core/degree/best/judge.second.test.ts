import { LONG } from '../../../tests/long'
import { judged } from './testing/judged'

judged(1001, LONG ? 2000 : 1030)
