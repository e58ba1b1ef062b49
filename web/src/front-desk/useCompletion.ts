import type { AskedForm, Completion, ShownPart } from '@tolvek/core/form';
import type { RawAnswers, RequestFacts } from '@tolvek/core/register';
import { useEffect, useState } from 'react';

export type Rules = typeof import('./rules.ts');
type Complete = (answers: RawAnswers, facts: RequestFacts) => Completion;

interface Loaded {
  readonly form: AskedForm;
  readonly complete: Complete;
  readonly rules: Rules;
}

/**
 * Completes answers with the rules that the server runs too. Until they are loaded, the questions
 * that no rule governs can be answered; `ready` says when all of them are known, `failed` that the
 * rules could not be fetched.
 */
export function useCompletion(form: AskedForm): {
  readonly complete: Complete;
  readonly rules: Rules | null;
  readonly state: 'loading' | 'ready' | 'failed';
} {
  const [loaded, setLoaded] = useState<Loaded | null>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    let wanted = true;
    import('./rules.ts').then(
      (rules) => wanted && setLoaded({ form, complete: rules.prepareCompletion(form), rules }),
      () => wanted && setFailed(true),
    );
    return () => {
      wanted = false;
    };
  }, [form]);
  if (loaded?.form === form) return { complete: loaded.complete, rules: loaded.rules, state: 'ready' };
  return { complete: () => ungoverned(form), rules: null, state: failed ? 'failed' : 'loading' };
}

/**
 * The form up to the first part that anything could change: safe to answer before the rules are
 * here.
 */
function ungoverned(form: AskedForm): Completion {
  const governed = new Set(
    form.rules
      .flatMap((rule) => [...rule.then, ...rule.otherwise])
      .flatMap((action) =>
        'parts' in action
          ? action.parts
          : 'fields' in action
            ? action.fields
            : [action.do === 'jump' ? action.after : action.field],
      ),
  );
  const first = form.parts.findIndex(
    (part) =>
      part.part === 'page' ||
      part.part === 'instruction' ||
      governed.has(part.part === 'question' ? part.field : part.id),
  );
  const open = first < 0 ? form.parts : form.parts.slice(0, first);
  const parts = open.flatMap((part): ShownPart[] =>
    part.part === 'question'
      ? [{ ...part, locked: false, offers: null, stands: null, shown: '' }]
      : part.part === 'section'
        ? [part]
        : [],
  );
  return {
    parts,
    asked: parts.filter((part) => part.part === 'question'),
    values: {},
    problems: [],
    strangers: [],
    warnings: [],
    cleared: [],
    rules: [],
    atRest: true,
  };
}
