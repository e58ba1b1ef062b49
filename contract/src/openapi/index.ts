export { openApiDocument } from './document.ts';
