import { z } from 'zod';
import type { Route } from '../route.ts';
import { routes } from '../routes/index.ts';
import { problemDocument } from '../schemas.ts';

const WHO: Record<Route['caller'], string> = {
  anyone: 'Anyone.',
  staff: 'Signed-in staff.',
  coordinator: 'Coordinators and administrators.',
  link: 'Whoever holds the link; it is the proof.',
};

const schema = (type: z.ZodType, io: 'input' | 'output'): unknown => {
  const { $schema: _, ...rest } = z.toJSONSchema(type, {
    io,
    unrepresentable: 'any',
    cycles: 'ref',
    reused: 'inline',
  }) as Record<string, unknown>;
  return rest;
};

/** Routes that answer with the bytes of a file. */
const BYTES: ReadonlySet<string> = new Set(['file', 'followFile']);

const isEmpty = (type: z.ZodType): boolean => type instanceof z.ZodObject && Object.keys(type.shape).length === 0;

/** The OpenAPI 3.1 document, made from the routes that the server serves. */
export function openApiDocument(version: string): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const each of Object.values(routes) as Route[]) {
    const path = each.path.replace(/:(\w+)/g, '{$1}');
    paths[path] ??= {};
    paths[path][each.method.toLowerCase()] = operation(each);
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Tolvek',
      version,
      description: 'Request intake for a department. Errors are RFC 9457 problem documents.',
    },
    paths,
    components: { schemas: { Problem: schema(problemDocument, 'output') } },
  };
}

function operation(each: Route): Record<string, unknown> {
  const parameters = [...parametersOf(each.params, 'path'), ...parametersOf(each.query, 'query')];
  if (each.guard !== 'none')
    parameters.push({ name: each.guard, in: 'header', required: true, schema: { type: 'string' } });
  const media = BYTES.has(each.name)
    ? 'application/octet-stream'
    : each.name === 'live'
      ? 'text/event-stream'
      : 'application/json';
  return {
    operationId: each.name,
    summary: each.says,
    description: `Who: ${WHO[each.caller]}`,
    parameters,
    ...(each.name === 'upload'
      ? {
          requestBody: {
            required: true,
            content: { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } },
          },
        }
      : {}),
    ...(isEmpty(each.body)
      ? {}
      : { requestBody: { required: true, content: { 'application/json': { schema: schema(each.body, 'input') } } } }),
    responses: {
      200: { description: 'Done.', content: { [media]: { schema: schema(each.answer, 'output') } } },
      default: {
        description: 'A problem.',
        content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
      },
    },
  };
}

function parametersOf(type: z.ZodType, place: 'path' | 'query'): Record<string, unknown>[] {
  if (!(type instanceof z.ZodObject)) return [];
  const shape = type.shape as Record<string, z.ZodType>;
  return Object.entries(shape).map(([name, each]) => ({
    name,
    in: place,
    required: place === 'path' || !each.safeParse(undefined).success,
    schema: schema(each, 'input'),
  }));
}
