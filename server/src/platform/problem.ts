import type { ProblemDocument } from '@tolvek/contract';
import { NeverOpen } from '@tolvek/core/deadline';
import type { Problem as FieldProblem } from '@tolvek/core/register';
import type { ErrorRequestHandler, Response } from 'express';
import type { Logger } from 'pino';
import { ZodError } from 'zod';

/** A refusal the caller can act on; becomes an RFC 9457 problem document. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly type: string,
    readonly title: string,
    readonly detail: string,
    readonly problems?: readonly FieldProblem[],
    /** Seconds after which it is worth trying again. */
    readonly retryAfter?: number,
  ) {
    super(detail);
  }
}

export const notFound = (what: string): Problem =>
  new Problem(404, 'not-found', 'Not found', `${what} does not exist, or is not for you to see.`);
export const notSignedIn = (): Problem =>
  new Problem(
    401,
    'sign-in',
    'Sign in first',
    'This is for signed-in staff. Sign in, and try again; what you typed is still here.',
  );
export const notAllowed = (why: string): Problem => new Problem(403, 'not-allowed', 'Not allowed', why);
export const staleVersion = (): Problem =>
  new Problem(
    412,
    'stale-version',
    'Changed meanwhile',
    'Somebody else changed this since you opened it. Load it again to see their change; nothing of yours was stored.',
  );
export const wrongFields = (problems: readonly FieldProblem[]): Problem =>
  new Problem(
    422,
    'wrong-fields',
    'Some answers need another look',
    problems.map((problem) => problem.message).join(' '),
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

/** Answers with a problem document. */
export function answerProblem(response: Response, problem: Problem): void {
  const document: ProblemDocument = {
    type: `urn:tolvek:problem:${problem.type}`,
    title: problem.title,
    status: problem.status,
    detail: problem.detail,
    ...(problem.problems ? { problems: [...problem.problems] } : {}),
  };
  if (problem.retryAfter !== undefined) response.set('Retry-After', String(problem.retryAfter));
  response.status(problem.status).type('application/problem+json').send(JSON.stringify(document));
}

function toProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof NeverOpen)
    return new Problem(
      409,
      'never-open',
      'No time to count in',
      `${error.message} Nothing was stored. A coordinator has to give it hours, or the form another calendar.`,
    );
  if (error instanceof ZodError) {
    return new Problem(
      400,
      'not-understood',
      'Not understood',
      'Parts of what was sent can’t be understood. Nothing was stored.',
      error.issues.flatMap((issue) =>
        issue.code === 'unrecognized_keys'
          ? issue.keys.map((key) => ({
              field: [...issue.path, key].join('.'),
              message: `“${key}” is not known here.`,
              fix: 'Leave it out.',
            }))
          : [{ field: issue.path.join('.') || 'body', message: issue.message, fix: 'Correct it and send again.' }],
      ),
    );
  }
  const type = typeof error === 'object' && error !== null && 'type' in error ? error.type : undefined;
  if (type === 'entity.too.large')
    return new Problem(413, 'too-large', 'Too large', 'What was sent is larger than 512 kB. Send less at once.');
  if (type === 'entity.parse.failed')
    return new Problem(400, 'malformed', 'Not readable', 'What was sent is not valid JSON. Nothing was stored.');
  const refused = statusOf(error);
  if (refused === 415)
    return new Problem(415, 'not-json', 'Not readable', 'Send JSON in UTF-8, as it is or compressed with gzip.');
  if (refused === 404) return notFound('This address');
  if (error instanceof URIError) return new Problem(400, 'malformed', 'Not readable', 'The address is not readable.');
  if (refused !== undefined)
    return new Problem(refused, 'malformed', 'Not readable', 'What was sent can’t be read. Nothing was stored.');
  return new Problem(
    500,
    'unexpected',
    'Something went wrong here',
    'It is our fault, and it is written down. Nothing was stored halfway; try again.',
  );
}

/** The status of what a library refused to read; undefined for anything else that went wrong. */
function statusOf(error: unknown): number | undefined {
  const status = typeof error === 'object' && error !== null && 'status' in error ? Number(error.status) : 0;
  return status >= 400 && status < 500 ? status : undefined;
}
