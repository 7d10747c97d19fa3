import { LONG } from '../../../tests/long'
import { judged } from './testing/judged'

judged(1, LONG ? 1000 : 30)
