export { type Audience, audienceInWords, belongs, groupsIn, inPlace, type Viewer } from './audience.ts';
export { type Holder, holderOf, holdersOf, wordOf } from './holders.ts';
