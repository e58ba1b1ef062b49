import { z } from 'zod';
import { routes } from '../routes.ts';
import { problemDocument } from '../wire/problem.ts';
import type { Head, Route } from '../wire/route.ts';
import { componentsOf, renamed, sameAs } from './components.ts';

const WHO: Record<Route['caller'], string> = {
  anyone: 'Anyone.',
  staff: 'Signed-in staff.',
  person: 'Whoever is signed in: staff, or a contact.',
  link: 'Whoever holds the link; it is the proof.',
};

type Json = Readonly<Record<string, unknown>>;

const BYTES: Json = { type: 'string', format: 'binary' };
const TEXT: Json = { type: 'string' };

/** What answers are that are no JSON of a shape. */
const MEDIA: Readonly<Record<NonNullable<Head['gives']>, readonly [media: string, schema: Json]>> = {
  bytes: ['application/octet-stream', BYTES],
  csv: ['text/csv', TEXT],
  events: ['text/event-stream', TEXT],
  json: ['application/json', { type: 'object', additionalProperties: true }],
};

const isEmpty = (type: z.ZodType): boolean => type instanceof z.ZodObject && Object.keys(type.shape).length === 0;

/** Every call may be answered with one. */
const PROBLEM: Json = { $ref: '#/components/responses/Problem' };
const PROBLEM_ANSWER: Json = {
  description: 'A problem.',
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/ProblemDocument' } } },
};

const SIGN_IN: Json = {
  post: {
    operationId: 'signIn',
    summary: 'Signs in: the cookie that comes with the answer is what other calls are made with.',
    description: 'Who: Anyone.',
    requestBody: {
      required: true,
      content: {
        'application/json': {
          schema: {
            type: 'object',
            properties: { email: { type: 'string' }, password: { type: 'string' } },
            required: ['email', 'password'],
          },
        },
      },
    },
    responses: {
      200: { description: 'Done.', content: { 'application/json': { schema: { type: 'object' } } } },
      default: PROBLEM,
    },
  },
};

/**
 * The OpenAPI 3.1 document, made from the routes that the server serves. `cookie`: the name of the one
 * that signs a caller in.
 */
export function openApiDocument(version: string, cookie = 'tolvek.session_token'): Record<string, unknown> {
  const all = Object.values(routes) as Route[];
  const answered = componentsOf(
    new Map([
      ...all.filter(({ gives }) => !gives).map(({ name, answer }) => [`${name}Answer`, answer] as const),
      ['problemDocument', problemDocument],
    ]),
    'output',
  );
  const sent = componentsOf(
    new Map(all.filter(({ body }) => !isEmpty(body)).map(({ name, body }) => [`${name}Body`, body])),
    'input',
  );
  const paths: Record<string, Record<string, unknown>> = { '/api/auth/sign-in/email': SIGN_IN };
  for (const each of all) {
    const path = each.path.replace(/:(\w+)/g, '{$1}');
    paths[path] ??= {};
    paths[path][each.method.toLowerCase()] = operation(each, {
      answer: answered.refs.get(`${each.name}Answer`),
      body: sent.refs.get(`${each.name}Body`),
    });
  }
  const parameters = parametersShared(paths);
  const every = { ...answered.components, ...sent.components };
  const names = sameAs(every);
  const schemas = Object.fromEntries(Object.entries(every).filter(([id]) => names.get(id) === id));
  const document = {
    openapi: '3.1.0',
    info: {
      title: 'Tolvek',
      version,
      description: 'Request intake for a department. Errors are RFC 9457 problem documents.',
    },
    paths,
    components: {
      schemas,
      parameters,
      responses: { Problem: PROBLEM_ANSWER },
      securitySchemes: {
        session: { type: 'apiKey', in: 'cookie', name: cookie },
        program: { type: 'http', scheme: 'bearer', description: 'A key of a program.' },
      },
    },
  };
  return renamed(document, names);
}

interface Called {
  parameters?: readonly Json[];
}

/** Parameters that many calls take: each stands once, and is pointed to; which, by name. */
function parametersShared(paths: Readonly<Record<string, Record<string, unknown>>>): Readonly<Record<string, Json>> {
  const calls = Object.values(paths).flatMap((path) => Object.values(path) as Called[]);
  const uses = new Map<string, number>();
  for (const { parameters = [] } of calls)
    for (const each of parameters) uses.set(JSON.stringify(each), (uses.get(JSON.stringify(each)) ?? 0) + 1);
  const shared = new Map<string, string>();
  for (const [text] of [...uses].filter(([, times]) => times > MANY).sort(([, a], [, b]) => b - a)) {
    const { name } = JSON.parse(text) as { name: string };
    if (![...shared.values()].includes(name)) shared.set(text, name);
  }
  for (const call of calls)
    if (call.parameters)
      call.parameters = call.parameters.map((each) => {
        const name = shared.get(JSON.stringify(each));
        return name === undefined ? each : { $ref: `#/components/parameters/${name}` };
      });
  return Object.fromEntries([...shared].map(([text, name]) => [name, JSON.parse(text) as Json]));
}

/** What is taken by more calls than so many stands once. */
const MANY = 4;

interface Refs {
  readonly answer: Json | undefined;
  readonly body: Json | undefined;
}

function operation(each: Route, { answer, body }: Refs): Record<string, unknown> {
  const parameters = [...parametersOf(each.params, 'path'), ...parametersOf(each.query, 'query')];
  if (each.guard) parameters.push({ name: each.guard, in: 'header', required: true, schema: { type: 'string' } });
  const [media, schema] = each.gives ? MEDIA[each.gives] : ['application/json', answer];
  const taken = each.takes
    ? { 'application/octet-stream': { schema: BYTES } }
    : body && { 'application/json': { schema: body } };
  const isSignedIn = each.caller === 'staff' || each.caller === 'person';
  return {
    operationId: each.name,
    summary: each.says,
    description: `Who: ${WHO[each.caller]}${each.right ? ` Right: ${each.right}.` : ''}`,
    ...(isSignedIn ? { security: [{ session: [] }, ...(each.programs ? [{ program: [] }] : [])] } : {}),
    parameters,
    ...(taken ? { requestBody: { required: true, content: taken } } : {}),
    responses: {
      200: { description: 'Done.', content: { [media]: { schema } } },
      default: PROBLEM,
    },
  };
}

function parametersOf(type: z.ZodType, place: 'path' | 'query'): Record<string, unknown>[] {
  if (!(type instanceof z.ZodObject)) return [];
  const shape = type.shape as Record<string, z.ZodType>;
  return Object.entries(shape).map(([name, each]) => {
    const { $schema: _, ...schema } = z.toJSONSchema(each, { io: 'input', unrepresentable: 'any' });
    return { name, in: place, required: place === 'path' || !each.safeParse(undefined).success, schema };
  });
}
