export { type Audience, audienceInWords, belongs, groupsIn, inPlace, type Viewer } from './audience.ts';
