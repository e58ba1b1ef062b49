import { type Route, routes } from '@tolvek/contract';
import { LANGUAGES } from '@tolvek/words/speech';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { IS_LONG } from '../../core/laws/often.ts';
import { type Caller, Desk } from './desk.ts';
import { faults } from './readable.ts';

/** Made from the contract: whatever is wrong with a call, whoever made it reads what to do. */
let desk: Desk;
let callers: readonly Caller[];
beforeAll(async () => {
  desk = await Desk.open();
  callers = await Promise.all(['', 'Priya Nakamura-Lind', 'Maren Okafor'].map((name) => desk.as(name)));
});
afterAll(() => desk.close());

type Json = Readonly<Record<string, unknown>>;
/** Something of a shape (JSON Schema), the smallest there is. */
function smallest(schema: Json): unknown {
  if (Array.isArray(schema.enum)) return schema.enum[0];
  if ('const' in schema) return schema.const;
  const [first] = (schema.anyOf ?? schema.oneOf ?? schema.allOf ?? []) as readonly Json[];
  if (first) return smallest(first);
  switch (schema.type) {
    case 'object': {
      const required = (schema.required ?? []) as readonly string[];
      const properties = (schema.properties ?? {}) as Readonly<Record<string, Json>>;
      return Object.fromEntries(required.map((name) => [name, smallest(properties[name] ?? {})]));
    }
    case 'array':
      if (Array.isArray(schema.prefixItems)) return schema.prefixItems.map(smallest);
      return Array.from({ length: Number(schema.minItems ?? 0) }, () => smallest((schema.items ?? {}) as Json));
    case 'boolean':
      return false;
    case 'integer':
    case 'number':
      return Number(schema.minimum ?? 1);
    default:
      return 'x'.repeat(Math.max(1, Number(schema.minLength ?? 1)));
  }
}

/** The bodies a route is tried with: of its shape, empty, and of no shape at all. */
function bodiesOf({ method, body }: Route): readonly (string | undefined)[] {
  if (method === 'GET') return [undefined];
  const shape = z.toJSONSchema(body, { io: 'input', unrepresentable: 'any', reused: 'inline' }) as Json;
  return [JSON.stringify(smallest(shape)), '{}', '[1]', '{'];
}

/** Values for the names in a path: of nothing, and of something that is there. */
const KNOWN: Readonly<Record<string, string>> = { slug: 'come-on-site', key: 'site-access', number: 'AC-00001' };

interface Refused {
  readonly status: number;
  // biome-ignore lint/suspicious/noExplicitAny: a problem document, looked at below
  readonly document: any;
}

async function tried(
  route: Route,
  caller: Caller,
  language: string,
  { body, known, guarded }: { body: string | undefined; known: boolean; guarded: boolean },
): Promise<Refused | null> {
  const path = route.path.replace(/:(\w+)/g, (_, name: string) => (known && KNOWN[name]) || 'nothing');
  const headers = {
    'accept-language': language,
    ...(caller.cookie ? { cookie: caller.cookie } : {}),
    ...(body === undefined
      ? {}
      : { 'content-type': route.takes === 'bytes' ? 'application/octet-stream' : 'application/json' }),
    ...(guarded && route.guard === 'Idempotency-Key' ? { 'Idempotency-Key': crypto.randomUUID() } : {}),
    ...(guarded && route.guard === 'If-Match' ? { 'If-Match': '"1"' } : {}),
  };
  const stop = new AbortController();
  const response = await fetch(`${desk.running.url}${path}`, {
    method: route.method,
    headers,
    signal: stop.signal,
    ...(body === undefined ? {} : { body }),
  });
  if (response.status < 400) {
    stop.abort();
    return null;
  }
  expect([route.name, response.headers.get('content-type')]).toEqual([
    route.name,
    expect.stringContaining('application/problem+json'),
  ]);
  return { status: response.status, document: await response.json() };
}

/** Routes that no such call is refused by: nothing is asked of the caller, and nothing is sent. */
const NEVER_REFUSED = [
  'health',
  'openapi',
  'me',
  'frontDesk',
  'mailroom',
  'signInWays',
  'hearAsProgram',
  'toldPrograms',
  'texts',
];

describe('every refusal of every route', () => {
  it('says what happened, what is saved and what to do now, in the language of the caller', async () => {
    const met = new Map<string, number>();
    const said = new Set<string>();
    for (const [place, route] of (Object.values(routes) as readonly Route[]).entries()) {
      let count = 0;
      for (const [by, caller] of callers.entries())
        for (const known of [false, true])
          for (const [index, body] of bodiesOf(route).entries()) {
            // What can’t be read is refused before it matters whether the path names something.
            if (!IS_LONG && known && index > 1) continue;
            // Who is signed in tries every second way of each route, but for in the longer runs.
            if (!IS_LONG && by > 0 && (place + by + index) % 2 > 0) continue;
            const language = LANGUAGES[(count + index) % LANGUAGES.length] ?? 'en';
            const refused = await tried(route, caller, language, { body, known, guarded: index !== 1 });
            if (!refused) continue;
            count += 1;
            said.add(refused.document.said?.happened?.say ?? '');
            const what = `${route.name} by ${caller.who}, ${refused.status}, ${body ?? ''}`;
            expect([what, faults(refused.document, language)]).toEqual([what, []]);
          }
      met.set(route.name, count);
    }
    const total = [...met.values()].reduce((sum, count) => sum + count, 0);
    console.log(`${total} refusals of ${met.size} routes, by ${said.size} texts`);
    expect(
      [...met]
        .filter(([, count]) => count === 0)
        .map(([name]) => name)
        .sort(),
    ).toEqual([...NEVER_REFUSED].sort());
  }, 300_000);
});
