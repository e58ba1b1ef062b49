/** What a directory says of people and groups, by SCIM 2.0 (RFC 7643, RFC 7644). */
export {
  type Attribute,
  ENTERPRISE,
  GROUP,
  type Json,
  RESOURCE_TYPES,
  type Resource,
  type ResourceType,
  type Schema,
  USER,
} from './attributes.ts';
export { type ReadFilter, readFilter } from './filter.ts';
export { PATCH_OP, patched, writtenOf } from './patch.ts';
export { type DirectoryPerson, personIn, saidOf } from './person.ts';
export { DirectoryRefusal, type ScimType } from './refusal.ts';
export { ALL, orderBy, shown, type Wanted } from './show.ts';
export { refuseLacking, takeResource } from './take.ts';
