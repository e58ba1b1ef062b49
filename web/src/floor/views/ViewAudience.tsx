import { wordOf, wordsIn } from '@tolvek/core/people';
import type { ViewDesign } from '@tolvek/core/view';
import { useDeferredValue, useId, useState } from 'react';
import { FindWho } from '../../fields/FindWho.tsx';
import { say } from '../../wire/words.ts';
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
  const nameOf = (word: string): string =>
    names[word] ?? data?.groups.find(({ key }) => key === word)?.name ?? word.replace('@', '');
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
        <>
          <span className="mt-1 flex flex-wrap gap-2">
            {words.map((word) => (
              <span key={word} className="flex items-center gap-1.5 border border-rule-strong py-1 pr-1 pl-2.5">
                {nameOf(word)}
                <button
                  type="button"
                  className="size-[24px] flex-none text-soft hover:text-brick"
                  aria-label={say('views:dropWho', { name: nameOf(word) })}
                  onClick={() => put(words.filter((other) => other !== word))}
                >
                  ×
                </button>
              </span>
            ))}
          </span>
          <span className="mt-2 block">
            <FindWho
              key={words.length}
              id={`${id}-who`}
              label={say('share:who')}
              placeholder={say('share:find')}
              none={say('share:noneFound')}
              groups={(data?.groups ?? [])
                .filter(({ key }) => !words.includes(key))
                .map(({ key, name, members }) => ({ key, name, detail: say('share:groupOf', { count: members }) }))}
              people={(data?.people ?? [])
                .filter((person) => !words.includes(`@${person.id}`))
                .map((person) => ({ ...person, detail: '' }))}
              find={setFind}
              choose={(who, name) => {
                if (!who) return;
                called(wordOf(who), name);
                setFind('');
                put([...words, wordOf(who)]);
              }}
            />
          </span>
        </>
      ) : null}
      <p className="mt-2 text-[13px] text-soft">{say('views:audienceHint')}</p>
    </fieldset>
  );
}
