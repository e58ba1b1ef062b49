import { type Attribute, RESOURCE_TYPES, type Resource, type Schema } from '@tolvek/core/directory';
import { MOST_OPERATIONS } from './bulk.ts';
import { PAGE } from './list.ts';

/** The most that may be sent at a time, bytes. */
export const MOST_BYTES = 4 * 1024 * 1024;

const supported = { supported: true };

/** What this desk can do of the standard (RFC 7643 §5). */
export const configuration = (base: string): Resource => ({
  schemas: ['urn:ietf:params:scim:schemas:core:2.0:ServiceProviderConfig'],
  ...{ patch: supported, sort: supported, etag: supported, changePassword: { supported: false } },
  bulk: { ...supported, maxOperations: MOST_OPERATIONS, maxPayloadSize: MOST_BYTES },
  filter: { ...supported, maxResults: PAGE },
  authenticationSchemes: [
    {
      ...{ type: 'oauthbearertoken', name: 'OAuth Bearer Token', primary: true },
      ...{ description: 'RFC 6750', specUri: 'https://www.rfc-editor.org/info/rfc6750' },
    },
  ],
  meta: { resourceType: 'ServiceProviderConfig', location: `${base}/ServiceProviderConfig` },
});

/** The kinds of resources there are (RFC 7643 §6). */
export const resourceTypes = (base: string): readonly Resource[] =>
  RESOURCE_TYPES.map(({ name, endpoint, schema, extensions }) => ({
    schemas: ['urn:ietf:params:scim:schemas:core:2.0:ResourceType'],
    ...{ id: name, name, endpoint, schema: schema.id },
    schemaExtensions: extensions.map(({ id }) => ({ schema: id, required: false })),
    meta: { resourceType: 'ResourceType', location: `${base}/ResourceTypes/${name}` },
  }));

const described = ({ subAttributes, canonicalValues, referenceTypes, ...rest }: Attribute): Resource => ({
  ...rest,
  ...(canonicalValues ? { canonicalValues } : {}),
  ...(referenceTypes ? { referenceTypes } : {}),
  ...(subAttributes ? { subAttributes: subAttributes.map(described) } : {}),
});

const schema = (base: string, { id, name, attributes }: Schema): Resource => ({
  schemas: ['urn:ietf:params:scim:schemas:core:2.0:Schema'],
  ...{ id, name, attributes: attributes.map(described) },
  meta: { resourceType: 'Schema', location: `${base}/Schemas/${id}` },
});

/** The schemas of all of them (RFC 7643 §7). */
export const schemas = (base: string): readonly Resource[] =>
  RESOURCE_TYPES.flatMap((type) => [type.schema, ...type.extensions]).map((each) => schema(base, each));
