export { type Audience, audienceInWords, belongs, type Viewer } from './audience.ts';
