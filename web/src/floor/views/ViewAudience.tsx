import { wordsIn } from '@tolvek/core/people';
import type { ViewDesign } from '@tolvek/core/view';
import { useDeferredValue, useId, useState } from 'react';
import { say } from '../../wire/words.ts';
import { NamedWho } from '../NamedWho.tsx';
import { viewsApi } from './endpoints.ts';

interface ViewAudienceProps {
  readonly audience: ViewDesign['audience'];
  readonly names: Readonly<Record<string, string>>;
  readonly called: (word: string, name: string) => void;
  readonly set: (audience: ViewDesign['audience']) => void;
}

const some = (words: readonly string[]): ViewDesign['audience'] => ({ in: { anyOf: [...words] }, outOf: [] });

/** Who finds a view or a report, where others do. `called`: what groups and people are called, by their words. */
export const audienceSaid = (
  audience: NonNullable<ViewDesign['audience']>,
  called: Readonly<Record<string, string>>,
): string =>
  'everyone' in audience.in
    ? say('views:everyone')
    : say('views:foundBy', {
        who: 'anyOf' in audience.in ? audience.in.anyOf.map((word) => called[word] ?? word) : [],
      });

/** Chooses who finds a view or a report among theirs. */
export function ViewAudience({ audience, names, called, set }: ViewAudienceProps) {
  const id = useId();
  const [find, setFind] = useState('');
  const looking = useDeferredValue(find.trim());
  const { data } = viewsApi.useNameableQuery({ query: { find: looking } });
  const whom = audience === null ? 'onlyMe' : 'everyone' in audience.in ? 'everyone' : 'some';
  const words = audience ? wordsIn(audience) : [];
  const put = (next: readonly string[]): void => set(some(next));
  const choose = {
    onlyMe: () => set(null),
    everyone: () => set({ in: { everyone: true }, outOf: [] }),
    some: () => put([]),
  };
  return (
    <fieldset>
      <legend className="sr-only">{say('views:audience')}</legend>
      {(['onlyMe', 'some', 'everyone'] as const).map((each) => (
        <label key={each} className="flex min-h-7 items-center gap-2">
          <input type="radio" className="accent-green" checked={whom === each} onChange={choose[each]} />
          {say(`views:${each}`)}
        </label>
      ))}
      {whom === 'some' ? (
        <NamedWho
          {...{ id, words, names, called, put }}
          found={data}
          find={setFind}
          dropped={(name) => say('views:dropWho', { name })}
        />
      ) : null}
      <p className="mt-2 text-[13px] text-soft">{say('views:audienceHint')}</p>
    </fieldset>
  );
}
