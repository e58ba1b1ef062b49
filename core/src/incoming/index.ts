export { failedDelivery, type Headers, kindOfEmail, type Undelivered } from './kind.ts';
export { noticesNamed, numbersNamed } from './named.ts';
export { HELD_WHY, type HeldWhy, type Place, placeOf, type SenderRole } from './place.ts';
export { newWords, withoutLinks } from './words.ts';
