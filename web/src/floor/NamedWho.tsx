import type { AnswerOf } from '@tolvek/contract';
import { wordOf } from '@tolvek/core/people';
import { FindWho } from '../fields/FindWho.tsx';
import { say } from '../wire/words.ts';

interface NamedWhoProps {
  readonly id: string;
  /** Those who are named, as words of an audience. */
  readonly words: readonly string[];
  /** What those are called whom nobody has just found. */
  readonly names: Readonly<Record<string, string>>;
  readonly found: Pick<AnswerOf<'sharable'>, 'groups' | 'people'> | undefined;
  readonly find: (words: string) => void;
  /** How the button is called that takes one out. */
  readonly dropped: (name: string) => string;
  readonly called: (word: string, name: string) => void;
  readonly put: (words: readonly string[]) => void;
}

/** Groups and people by name: those who are named, and the way to find another. */
export function NamedWho({ id, words, names, found, find, dropped, called, put }: NamedWhoProps) {
  const nameOf = (word: string): string =>
    names[word] ?? found?.groups.find(({ key }) => key === word)?.name ?? word.replace('@', '');
  return (
    <>
      <span className="mt-1 flex flex-wrap gap-2">
        {words.map((word) => (
          <span key={word} className="flex items-center gap-1.5 border border-rule-strong bg-sheet py-1 pr-1 pl-2.5">
            {nameOf(word)}
            <button
              type="button"
              className="size-[24px] flex-none text-soft hover:text-brick"
              aria-label={dropped(nameOf(word))}
              onClick={() => put(words.filter((other) => other !== word))}
            >
              ×
            </button>
          </span>
        ))}
      </span>
      <span className="mt-1 block max-w-80">
        <FindWho
          key={words.length}
          id={`${id}-who`}
          label={say('share:who')}
          placeholder={say('share:find')}
          none={say('share:noneFound')}
          groups={(found?.groups ?? [])
            .filter(({ key }) => !words.includes(key))
            .map(({ key, name, members }) => ({ key, name, detail: say('share:groupOf', { count: members }) }))}
          people={(found?.people ?? [])
            .filter((person) => !words.includes(`@${person.id}`))
            .map((person) => ({ ...person, detail: '' }))}
          find={find}
          choose={(who, name) => {
            if (!who) return;
            called(wordOf(who), name);
            find('');
            put([...words, wordOf(who)]);
          }}
        />
      </span>
    </>
  );
}
