export { placeStudent, type Placed, type PlacingAsked, type Unplaced } from './place'
