import { readFileSync } from 'node:fs';
import { z } from 'zod';

const person = z.strictObject({
  /** Its own id for them, which lasts. */
  id: z.string().min(1),
  given: z.string(),
  family: z.string(),
  email: z.email(),
  title: z.string().optional(),
  department: z.string().optional(),
  phone: z.string().optional(),
  /** The id of whom they report to. */
  manager: z.string().optional(),
  active: z.boolean().default(true),
});
const file = z.strictObject({
  people: z.array(person),
  groups: z.array(z.strictObject({ id: z.string().min(1), name: z.string().min(1), members: z.array(z.string()) })),
});

/** What a directory knows: people, and groups of people and groups, each by its own id. */
export type DirectoryFile = z.infer<typeof file>;

/** A directory out of a file. @throws when the file is none, with what is wrong and where */
export const readDirectory = (path: string): DirectoryFile => file.parse(JSON.parse(readFileSync(path, 'utf8')));

const CORE = 'urn:ietf:params:scim:schemas:core:2.0';
const ENTERPRISE = 'urn:ietf:params:scim:schemas:extension:enterprise:2.0:User';
const BULK = 'urn:ietf:params:scim:api:messages:2.0:BulkRequest';

interface Resource {
  readonly id: string;
  readonly externalId?: string;
  readonly [name: string]: unknown;
}

interface Operation {
  readonly method: 'POST' | 'PUT' | 'DELETE';
  readonly path: string;
  readonly bulkId?: string;
  readonly data?: object;
}

/** What a directory found out there, and did. */
export interface InStep {
  readonly added: number;
  readonly changed: number;
  readonly removed: number;
  /** What was refused, in words. */
  readonly refused: readonly string[];
}

/** Whoever speaks SCIM 2.0 at an address, called with a token. */
class Service {
  constructor(
    private readonly address: string,
    private readonly token: string,
  ) {}

  private async call<T>(method: string, path: string, body?: object): Promise<T> {
    const answer = await fetch(`${this.address}${path}`, {
      method,
      headers: { Authorization: `Bearer ${this.token}`, 'Content-Type': 'application/scim+json' },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
    const text = await answer.text();
    if (answer.ok) return JSON.parse(text) as T;
    const { detail } = z.object({ detail: z.string() }).catch({ detail: text }).parse(JSON.parse(text));
    throw new Error(`${answer.status}: ${detail}`);
  }

  /** All resources of a kind, page by page. */
  async all(endpoint: string): Promise<readonly Resource[]> {
    const found: Resource[] = [];
    for (let total = 1; found.length < total; ) {
      const page = await this.call<{ totalResults: number; Resources: readonly Resource[] }>(
        'GET',
        `${endpoint}?startIndex=${found.length + 1}&count=100`,
      );
      found.push(...page.Resources);
      total = page.Resources.length === 0 ? 0 : page.totalResults;
    }
    return found;
  }

  /** Sends operations, as many at a time as are taken. Returns the ids of what was made, and what was refused. */
  async send(operations: readonly Operation[]): Promise<{ ids: Map<string, string>; refused: readonly string[] }> {
    const { bulk } = await this.call<{ bulk: { maxOperations: number } }>('GET', '/ServiceProviderConfig');
    const ids = new Map<string, string>();
    const refused: string[] = [];
    for (let from = 0; from < operations.length; from += bulk.maxOperations) {
      const { Operations: answers } = await this.call<{
        Operations: readonly { status: string; bulkId?: string; location?: string; response?: { detail?: string } }[];
      }>('POST', '/Bulk', { schemas: [BULK], Operations: operations.slice(from, from + bulk.maxOperations) });
      for (const { status, bulkId, location, response } of answers)
        if (Number(status) >= 400) refused.push(`${bulkId ?? location ?? ''}: ${response?.detail ?? status}`);
        else if (bulkId !== undefined) ids.set(bulkId, location?.split('/').at(-1) ?? '');
    }
    return { ids, refused };
  }
}

/** What makes one kind of resource what it should be, found by its own ids. */
function operationsFor(
  endpoint: string,
  there: readonly Resource[],
  wanted: ReadonlyMap<string, object>,
): readonly Operation[] {
  const known = new Map(there.map((each) => [each.externalId ?? '', each]));
  const set = [...wanted].flatMap(([id, data]): readonly Operation[] => {
    const is = known.get(id);
    if (!is) return [{ method: 'POST', path: endpoint, bulkId: id, data }];
    return sameIn(data, is) ? [] : [{ method: 'PUT', path: `${endpoint}/${is.id}`, data }];
  });
  const gone = there.filter(({ externalId = '' }) => !wanted.has(externalId));
  return [...set, ...gone.map(({ id }): Operation => ({ method: 'DELETE', path: `${endpoint}/${id}` }))];
}

/** Whether all that is wanted is there already; members in any order. */
function sameIn(wanted: unknown, is: unknown): boolean {
  if (Array.isArray(wanted)) {
    const all: readonly unknown[] = Array.isArray(is) ? is : [];
    return wanted.length === all.length && wanted.every((each) => all.some((other) => sameIn(each, other)));
  }
  if (typeof wanted !== 'object' || wanted === null) return wanted === is;
  const held = (typeof is === 'object' && is !== null ? is : {}) as Readonly<Record<string, unknown>>;
  return Object.entries(wanted).every(([name, value]) => name === 'schemas' || sameIn(value, held[name]));
}

const count = (operations: readonly Operation[], method: Operation['method']): number =>
  operations.filter((each) => each.method === method).length;

/**
 * Brings a desk in step with a directory: adds who is new, changes who is another, removes who is gone.
 *
 * @throws where the desk can’t be reached, or does not take the token
 */
export async function keepInStep(
  { people, groups }: DirectoryFile,
  { address, token }: { readonly address: string; readonly token: string },
): Promise<InStep> {
  const service = new Service(address, token);
  const [users, had] = [await service.all('/Users'), await service.all('/Groups')];
  const userIds = new Map(users.map(({ externalId = '', id }) => [externalId, id]));
  const byId = (ids: ReadonlyMap<string, string>, id: string): string => ids.get(id) ?? `bulkId:${id}`;
  const wanted = new Map<string, object>(
    people.map(({ id, given, family, email, title, department, phone, manager, active }) => [
      id,
      {
        schemas: [`${CORE}:User`, ENTERPRISE],
        ...{ externalId: id, userName: email, displayName: `${given} ${family}`, active },
        name: { givenName: given, familyName: family },
        emails: [{ value: email, type: 'work', primary: true }],
        ...(title ? { title } : {}),
        ...(phone ? { phoneNumbers: [{ value: phone, type: 'work' }] } : {}),
        ...(department || manager
          ? {
              [ENTERPRISE]: {
                ...(department ? { department } : {}),
                ...(manager ? { manager: { value: byId(userIds, manager) } } : {}),
              },
            }
          : {}),
      },
    ]),
  );
  const settingUsers = operationsFor('/Users', users, wanted);
  const first = await service.send(settingUsers);
  const ids = new Map([...userIds, ...first.ids, ...had.map(({ externalId = '', id }) => [externalId, id] as const)]);
  const settingGroups = operationsFor(
    '/Groups',
    had,
    new Map(
      groups.map(({ id, name, members }) => [
        id,
        {
          ...{ schemas: [`${CORE}:Group`], externalId: id, displayName: name },
          members: members.map((member) => ({ value: byId(ids, member) })),
        },
      ]),
    ),
  );
  const second = await service.send(settingGroups);
  const all = [...settingUsers, ...settingGroups];
  return {
    ...{ added: count(all, 'POST'), changed: count(all, 'PUT'), removed: count(all, 'DELETE') },
    refused: [...first.refused, ...second.refused],
  };
}
