import { wordsIn } from '@tolvek/core/people';
import type { ViewDesign } from '@tolvek/core/view';
import { useDeferredValue, useId, useState } from 'react';
import { say } from '../../wire/words.ts';
import { NamedWho } from '../NamedWho.tsx';
import { viewsApi } from './endpoints.ts';

interface ViewAudienceProps {
  readonly view: ViewDesign;
  readonly names: Readonly<Record<string, string>>;
  readonly called: (word: string, name: string) => void;
  readonly set: (view: ViewDesign) => void;
}

const some = (words: readonly string[]): ViewDesign['audience'] => ({ in: { anyOf: [...words] }, outOf: [] });

/** Who finds a view among theirs. */
export function ViewAudience({ view, names, called, set }: ViewAudienceProps) {
  const id = useId();
  const [find, setFind] = useState('');
  const looking = useDeferredValue(find.trim());
  const { data } = viewsApi.useNameableQuery({ query: { find: looking } });
  const { audience } = view;
  const whom = audience === null ? 'onlyMe' : 'everyone' in audience.in ? 'everyone' : 'some';
  const words = audience ? wordsIn(audience) : [];
  const put = (next: readonly string[]): void => set({ ...view, audience: some(next) });
  const choose = {
    onlyMe: () => set({ ...view, audience: null }),
    everyone: () => set({ ...view, audience: { in: { everyone: true }, outOf: [] } }),
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
