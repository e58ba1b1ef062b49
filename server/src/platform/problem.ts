import type { ProblemDocument } from '@tolvek/contract';
import { NeverOpen } from '@tolvek/core/deadline';
import type { Problem as FieldProblem } from '@tolvek/core/register';
import { type Key, type Refusal, refused, said } from '@tolvek/words';
import type { Language } from '@tolvek/words/speech';
import type { ErrorRequestHandler, Response } from 'express';
import type { Logger } from 'pino';
import { ZodError } from 'zod';
import { unreadable } from './unreadable.ts';
import { speechFor, wishedBy } from './words.ts';

/** A refusal the caller can act on; becomes an RFC 9457 problem document. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly type: string,
    readonly said: Refusal,
    readonly problems?: readonly FieldProblem[],
    /** Seconds after which it is worth trying again. */
    readonly retryAfter?: number,
  ) {
    super(type);
  }
}

/** What is not there, or not for the caller to see. */
export type Thing = Extract<Key, `things:${string}`> extends `things:${infer Name}` ? Name : never;

export const notFound = (what: Thing): Problem =>
  new Problem(404, 'not-found', refused('notFound', { what: said(`things:${what}`) }));
export const notSignedIn = (): Problem => new Problem(401, 'sign-in', refused('signIn'));
export const notAllowed = (why: Refusal): Problem => new Problem(403, 'not-allowed', why);
export const staleVersion = (): Problem => new Problem(412, 'stale-version', refused('stale'));
export const wrongFields = (problems: readonly FieldProblem[]): Problem =>
  new Problem(
    422,
    'wrong-fields',
    refused('wrongFields', {
      problems: said('common:sentences', { sentences: problems.map(({ message }) => message) }),
    }),
    problems,
  );

/**
 * Express' last handler: every error leaves as a problem document; the unexpected is logged and
 * told without its insides.
 */
export function answerErrors(log: Logger): ErrorRequestHandler {
  return (error, request, response, _next) => {
    // An answer that broke off in the middle can only be ended so that nobody takes it for whole.
    if (response.headersSent) {
      request.socket.destroy();
      return;
    }
    const problem = toProblem(error);
    if (problem.status >= 500 && !(error instanceof Problem))
      log.error({ err: error, path: request.path }, 'unexpected error');
    // What was given up half read leaves the line in the middle of a call: no other may follow on it.
    if (request.destroyed && !request.complete) response.set('Connection', 'close');
    answerProblem(response, problem);
  };
}

/** A problem document: as codes, and in words of the caller’s language for who has no catalogue. */
export function documentOf(problem: Problem, language: Language): ProblemDocument {
  const { told } = speechFor({ language });
  const { happened, saved, now } = problem.said;
  return {
    type: `urn:tolvek:problem:${problem.type}`,
    title: told(happened),
    status: problem.status,
    detail: `${told(saved)} ${told(now)}`,
    said: problem.said,
    ...(problem.problems ? { problems: [...problem.problems] } : {}),
  };
}

/** Answers with a problem document. */
export function answerProblem(response: Response, problem: Problem): void {
  const document = documentOf(problem, wishedBy(response.req));
  if (problem.retryAfter !== undefined) response.set('Retry-After', String(problem.retryAfter));
  response.status(problem.status).type('application/problem+json').send(JSON.stringify(document));
}

/** Any error as one that the caller can be told. */
export function toProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof NeverOpen)
    return new Problem(409, 'never-open', refused('neverOpen', { calendar: error.calendar }));
  if (error instanceof ZodError) {
    const problems = error.issues.flatMap(unreadable);
    const sentences = problems.map(({ message }) => message);
    const all = said('common:sentences', { sentences });
    return new Problem(400, 'not-understood', refused('notUnderstood', { problems: all }), problems);
  }
  const type = typeof error === 'object' && error !== null && 'type' in error ? error.type : undefined;
  if (type === 'entity.too.large') return new Problem(413, 'too-large', refused('tooLarge', { most: 512_000 }));
  if (type === 'entity.parse.failed') return new Problem(400, 'malformed', refused('notJson'));
  const status = statusOf(error);
  if (status === 415) return new Problem(415, 'not-json', refused('notJson'));
  if (status === 404) return notFound('page');
  if (error instanceof URIError) return new Problem(400, 'malformed', refused('unreadable'));
  if (status !== undefined) return new Problem(status, 'malformed', refused('unreadable'));
  return new Problem(500, 'unexpected', refused('unexpected'));
}

/** The status of what a library refused to read; undefined for anything else that went wrong. */
function statusOf(error: unknown): number | undefined {
  const status = typeof error === 'object' && error !== null && 'status' in error ? Number(error.status) : 0;
  return status >= 400 && status < 500 ? status : undefined;
}
