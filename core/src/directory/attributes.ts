/** What is kept at an attribute: a text, a truth, a moment, or parts of its own. */
export type Json = string | number | boolean | null | readonly Json[] | { readonly [key: string]: Json };
export type Resource = { readonly [key: string]: Json };

/** One attribute of a resource, with its characteristics (RFC 7643 §2.2 and §7). */
export interface Attribute {
  readonly name: string;
  readonly type: 'string' | 'boolean' | 'complex' | 'reference' | 'dateTime';
  readonly multiValued: boolean;
  readonly required: boolean;
  readonly caseExact: boolean;
  readonly mutability: 'readWrite' | 'readOnly' | 'immutable';
  readonly returned: 'always' | 'default';
  readonly uniqueness: 'none' | 'server';
  readonly canonicalValues?: readonly string[];
  readonly referenceTypes?: readonly string[];
  readonly subAttributes?: readonly Attribute[];
}

/** A schema by its urn. */
export interface Schema {
  readonly id: string;
  readonly name: string;
  readonly attributes: readonly Attribute[];
}

/** A kind of resource: where it is found, its schema, and the schemas that add to it. */
export interface ResourceType {
  readonly name: 'User' | 'Group';
  readonly endpoint: '/Users' | '/Groups';
  readonly schema: Schema;
  readonly extensions: readonly Schema[];
}

const simple = (name: string, more: Partial<Attribute> = {}): Attribute => ({
  ...{ name, type: 'string', multiValued: false, required: false, caseExact: false },
  ...{ mutability: 'readWrite', returned: 'default', uniqueness: 'none' },
  ...more,
});
const complex = (name: string, subAttributes: readonly Attribute[], more: Partial<Attribute> = {}): Attribute =>
  simple(name, { type: 'complex', subAttributes, ...more });
const several = (name: string, subAttributes: readonly Attribute[], more: Partial<Attribute> = {}): Attribute =>
  complex(name, subAttributes, { multiValued: true, ...more });

const READ_ONLY = { mutability: 'readOnly' } as const;
const IMMUTABLE = { mutability: 'immutable' } as const;

/** Ways to reach somebody: of several kinds, one of them the first. */
const reaching = (name: string, kinds: readonly string[]): Attribute =>
  several(name, [
    simple('value'),
    simple('display'),
    simple('type', { canonicalValues: kinds }),
    simple('primary', { type: 'boolean' }),
  ]);

const reference = (name: string, referenceTypes: readonly string[], more: Partial<Attribute> = {}): Attribute =>
  simple(name, { type: 'reference', referenceTypes, ...more });

export const ENTERPRISE = 'urn:ietf:params:scim:schemas:extension:enterprise:2.0:User';

/** What is kept of a user (RFC 7643 §4.1 and §4.3): what people are known by at a desk, and no more. */
export const USER: ResourceType = {
  ...{ name: 'User', endpoint: '/Users' },
  schema: {
    ...{ id: 'urn:ietf:params:scim:schemas:core:2.0:User', name: 'User' },
    attributes: [
      simple('userName', { required: true, uniqueness: 'server' }),
      complex(
        'name',
        ['formatted', 'familyName', 'givenName', 'middleName', 'honorificPrefix', 'honorificSuffix'].map((part) =>
          simple(part),
        ),
      ),
      ...['displayName', 'nickName', 'title', 'userType', 'preferredLanguage', 'locale', 'timezone'].map((name) =>
        simple(name),
      ),
      simple('active', { type: 'boolean' }),
      reaching('emails', ['work', 'home', 'other']),
      reaching('phoneNumbers', ['work', 'home', 'mobile', 'fax', 'pager', 'other']),
      several(
        'groups',
        [
          simple('value', READ_ONLY),
          reference('$ref', ['User', 'Group'], READ_ONLY),
          simple('display', READ_ONLY),
          simple('type', { ...READ_ONLY, canonicalValues: ['direct', 'indirect'] }),
        ],
        READ_ONLY,
      ),
    ],
  },
  extensions: [
    {
      ...{ id: ENTERPRISE, name: 'EnterpriseUser' },
      attributes: [
        ...['employeeNumber', 'costCenter', 'organization', 'division', 'department'].map((name) => simple(name)),
        complex('manager', [simple('value'), reference('$ref', ['User']), simple('displayName', READ_ONLY)]),
      ],
    },
  ],
};

/** What is kept of a group (RFC 7643 §4.2). */
export const GROUP: ResourceType = {
  ...{ name: 'Group', endpoint: '/Groups' },
  schema: {
    ...{ id: 'urn:ietf:params:scim:schemas:core:2.0:Group', name: 'Group' },
    attributes: [
      simple('displayName', { required: true }),
      several('members', [
        simple('value', IMMUTABLE),
        reference('$ref', ['User', 'Group'], IMMUTABLE),
        simple('type', { ...IMMUTABLE, canonicalValues: ['User', 'Group'] }),
        simple('display', READ_ONLY),
      ]),
    ],
  },
  extensions: [],
};

export const RESOURCE_TYPES: readonly ResourceType[] = [USER, GROUP];

/** What every resource has besides its schema (RFC 7643 §3.1). */
const COMMON: readonly Attribute[] = [
  simple('id', { caseExact: true, mutability: 'readOnly', returned: 'always', uniqueness: 'server' }),
  simple('externalId', { caseExact: true }),
  complex(
    'meta',
    [
      simple('resourceType', { ...READ_ONLY, caseExact: true }),
      simple('created', { ...READ_ONLY, type: 'dateTime' }),
      simple('lastModified', { ...READ_ONLY, type: 'dateTime' }),
      reference('location', ['uri'], READ_ONLY),
      simple('version', { ...READ_ONLY, caseExact: true }),
    ],
    READ_ONLY,
  ),
];

/** The attributes at the root of a resource. */
export const rootOf = (type: ResourceType): readonly Attribute[] => [...COMMON, ...type.schema.attributes];

/** An attribute by its name, of which capitals do not count (RFC 7643 §2.1). */
export const named = (attributes: readonly Attribute[], name: string): Attribute | undefined =>
  attributes.find((each) => each.name.toLowerCase() === name.toLowerCase());

export const isRecord = (value: Json | undefined): value is Resource =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The values of an attribute: one, several or none. */
export const valuesOf = (value: Json | undefined): readonly Json[] => {
  if (value === undefined || value === null) return [];
  return Array.isArray(value) ? (value as readonly Json[]) : [value];
};

/** Where the attributes of a schema stand: at the resource, or under the id of an extension; nothing where it has none. */
export const holderOf = (resource: Resource, extension: string | null): Resource => {
  if (extension === null) return resource;
  const held = resource[extension];
  return isRecord(held) ? held : {};
};
