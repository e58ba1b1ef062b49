import type { Completion, FormDesign } from '@tolvek/core/form';
import type { RawAnswers, RequestFacts } from '@tolvek/core/register';
import { useEffect, useState } from 'react';

type Form = Pick<FormDesign, 'fields' | 'questions' | 'rules'>;
type Complete = (answers: RawAnswers, facts: RequestFacts) => Completion;

/**
 * Completes answers with the rules that the server runs too. Until they are loaded, the questions that no rule governs can be
 * answered; `ready` says when all of them are known, `failed` that the rules could not be fetched.
 */
export function useCompletion(form: Form): { readonly complete: Complete; readonly state: 'loading' | 'ready' | 'failed' } {
  const [loaded, setLoaded] = useState<{ readonly form: Form; readonly complete: Complete } | null>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    let wanted = true;
    import('./rules.ts').then(
      ({ prepareCompletion }) => wanted && setLoaded({ form, complete: prepareCompletion(form) }),
      () => wanted && setFailed(true),
    );
    return () => {
      wanted = false;
    };
  }, [form]);
  if (loaded?.form === form) return { complete: loaded.complete, state: 'ready' };
  const governed = new Set(form.rules.flatMap((rule) => rule.show));
  return { complete: () => ({ asked: form.questions.filter((question) => !governed.has(question.field)), values: {}, problems: [] }), state: failed ? 'failed' : 'loading' };
}
