import type { Problem, RawAnswers } from '@tolvek/core/register';
import { useState } from 'react';
import { frontDeskApi } from './endpoints.ts';

interface Taken {
  readonly problems: readonly Problem[];
  /**
   * Asks whether answers are taken, or no longer offered, when a field is left that the house looks
   * at and all that belongs to it is filled in.
   */
  readonly check: (field: string, answers: RawAnswers) => void;
  /** A changed answer is no longer known to be taken. */
  readonly forget: (field: string) => void;
}

/**
 * Answers that another request has already, or that are not offered with the others: told as soon
 * as the field is left.
 */
export function useTaken(
  slug: string,
  together: readonly (readonly string[])[],
  shows: { readonly opened: string | undefined; readonly owed?: string; readonly entry?: string },
): Taken {
  const [ask] = frontDeskApi.useCheckAnswersMutation();
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const concerned = (field: string): readonly (readonly string[])[] =>
    together.filter((fields) => fields.includes(field));
  return {
    problems,
    check: (field, answers) => {
      if (!concerned(field).some((fields) => fields.every((key) => Object.hasOwn(answers, key)))) return;
      // Whether it could be asked or not: the server looks again when the request is sent.
      void ask({ slug, body: { answers, ...shows } }).then(
        (result) => 'data' in result && result.data && setProblems(result.data.problems),
      );
    },
    forget: (field) => {
      const fields = concerned(field).flat();
      if (fields.length > 0) setProblems((before) => before.filter((problem) => !fields.includes(problem.field)));
    },
  };
}
