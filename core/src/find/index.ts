export { faultsBetween, faultsIn } from './near.ts';
export { calledIn, type Sought, type SoughtIn, soughtBy, standsIn, widened } from './sought.ts';
export { type Findable, findableIn, PLACES, personTag, requestTag } from './tags.ts';
export { isCalled, type Piece, piecesOf, wordsOf } from './words.ts';
