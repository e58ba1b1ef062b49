import type { AnswerOf } from '@tolvek/contract';
import { piecesOf, wordsOf } from '@tolvek/core/find';
import { Dialog } from 'radix-ui';
import { type KeyboardEvent, type ReactNode, useDeferredValue, useEffect, useId, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { Trouble } from '../ui/Trouble.tsx';
import { say, told } from '../wire/words.ts';
import { findApi } from './endpoints.ts';
import { type Finder, pagesCalled } from './findPages.ts';
import { addLately, latelyOf } from './lately.ts';

type Found = AnswerOf<'find'>;
type FoundRequest = Found['requests'][number];

/** Something that is found, and where it is. */
interface Entry {
  readonly to: string;
  readonly shown: ReactNode;
  /** Looks for that instead of going somewhere. */
  readonly text?: string;
}

interface Group {
  readonly key: string;
  readonly head: string;
  readonly entries: readonly Entry[];
  /** Stands in the wide column. */
  readonly wide: boolean;
}

/** How long after a letter what is typed is looked for, ms. */
const A_MOMENT = 120;
/** Letters of a place that are shown around what was looked for. */
const SHOWN = 120;

/** Find, as a sheet drawn down from the band: requests by what stands in them, and pages, views, forms and people by name. */
export function FindSheet({ person, close }: { person: Finder; close: () => void }) {
  const [typed, setTyped] = useState('');
  const text = useSettled(typed.trim());
  const { data, error, isFetching } = findApi.useFindQuery({ body: { text } }, { skip: text === '' });
  const found = text === '' ? undefined : data;
  const calm = useDeferredValue(typed);
  const groups = useMemo(
    () => (calm.trim() === '' ? latelyGroups(person.id) : groupsOf(found, calm, person)),
    [calm, found, person],
  );
  const entries = groups.flatMap((group) => group.entries);
  const [at, setAt] = useState(0);
  // What is found anew begins at its first.
  // biome-ignore lint/correctness/useExhaustiveDependencies: another text is another list
  useEffect(() => setAt(0), [text]);
  const navigate = useNavigate();
  const base = useId();
  const idOf = (place: number): string => `${base}-${place}`;
  const here = Math.min(at, entries.length - 1);
  useEffect(() => {
    document.getElementById(`${base}-${here}`)?.scrollIntoView({ block: 'nearest' });
  }, [base, here]);
  const open = ({ to, text: again }: Entry): void => {
    if (again !== undefined) {
      setTyped(again);
      return;
    }
    addLately(person.id, typed.trim());
    close();
    navigate(to);
  };
  const onKey = (event: KeyboardEvent): void => {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step !== 0 && entries.length > 0) {
      event.preventDefault();
      setAt((here + step + entries.length) % entries.length);
    }
    const entry = entries[here];
    if (event.key === 'Enter' && entry) {
      event.preventDefault();
      open(entry);
    }
  };
  let place = 0;
  const column = (wide: boolean) =>
    groups
      .filter((group) => group.wide === wide)
      .map((group) => (
        // biome-ignore lint/a11y/useSemanticElements: a group of options, and not of fields
        <div key={group.key} role="group" aria-label={group.head} className="pb-4">
          {/* Said by the name of the group. */}
          <p aria-hidden="true" className="pb-1 text-[12.5px] font-semibold text-soft">
            {group.head}
          </p>
          {group.entries.map((entry) => {
            const nth = place;
            place += 1;
            return (
              // biome-ignore lint/a11y/useKeyWithClickEvents: the field above has the keyboard (ARIA combobox)
              <div
                key={`${entry.to} ${entry.text ?? ''}`}
                id={idOf(nth)}
                role="option"
                tabIndex={-1}
                aria-selected={nth === here}
                className={`-ml-2 cursor-pointer border-l-[3px] px-2 py-1.5 ${nth === here ? 'border-green bg-green-wash' : 'border-transparent'}`}
                onClick={() => open(entry)}
                onPointerMove={() => setAt(nth)}
              >
                {entry.shown}
              </div>
            );
          })}
        </div>
      ));
  const [wide, narrow] = [column(true), column(false)];
  return (
    <Dialog.Root open onOpenChange={close}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 top-[46px] z-20 bg-ink/25" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-x-0 top-[46px] z-30 flex max-h-[calc(100dvh-92px)] flex-col border-b border-rule-strong bg-sheet shadow-lg"
        >
          <div className="border-b border-rule px-5 pt-4 pb-3 sm:px-8">
            <Dialog.Title className="sr-only">{say('find:title')}</Dialog.Title>
            <input
              role="combobox"
              aria-label={say('find:what')}
              aria-expanded={entries.length > 0}
              aria-controls={base}
              aria-autocomplete="list"
              aria-activedescendant={entries.length > 0 ? idOf(here) : undefined}
              autoComplete="off"
              spellCheck={false}
              maxLength={200}
              placeholder={say('find:hint')}
              className="w-full border-0 bg-transparent py-1 font-serif text-[24px] text-ink outline-none placeholder:text-soft"
              value={typed}
              onChange={(event) => setTyped(event.target.value)}
              onKeyDown={onKey}
            />
            <p className="text-[12.5px] text-soft" role="status">
              {typed.trim() === ''
                ? say('find:says')
                : isFetching || text !== typed.trim()
                  ? say('find:looking')
                  : entries.length > 0
                    ? say('find:count', { count: entries.length })
                    : `${say('find:nothing', { text })} ${say('find:nothingHint')}`}
            </p>
          </div>
          {error ? (
            <div className="px-5 py-4 sm:px-8">
              <Trouble error={error} />
            </div>
          ) : null}
          <div
            hidden={entries.length === 0}
            id={base}
            role="listbox"
            aria-label={say('find:title')}
            className={`grid flex-1 [&[hidden]]:hidden gap-x-10 overflow-auto px-5 pt-3 sm:px-8 ${wide.length > 0 && narrow.length > 0 ? 'md:grid-cols-[minmax(0,2fr)_minmax(0,1fr)]' : ''}`}
          >
            {entries.length > 0 ? (
              <>
                {wide.length > 0 ? <div role="presentation">{wide}</div> : null}
                {narrow.length > 0 ? <div role="presentation">{narrow}</div> : null}
              </>
            ) : null}
          </div>
          <p className="flex flex-wrap gap-x-6 border-t border-rule px-5 py-1.5 text-[12.5px] text-soft sm:px-8">
            {say('find:keys', { up: '↑', down: '↓', enter: say('find:key.enter'), escape: say('find:key.escape') })}
            {found?.more ? <span>{say('find:more')}</span> : null}
            {found && found.behind > 0 ? <span>{say('find:behind', { count: found.behind })}</span> : null}
          </p>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** A text a moment after it was last changed. */
function useSettled(text: string): string {
  const [settled, setSettled] = useState('');
  useEffect(() => {
    const waiting = setTimeout(() => setSettled(text), A_MOMENT);
    return () => clearTimeout(waiting);
  }, [text]);
  return settled;
}

const latelyGroups = (personId: string): readonly Group[] => {
  const entries = latelyOf(personId).map((text) => ({ to: '', text, shown: text }));
  return entries.length === 0 ? [] : [{ key: 'lately', head: say('find:lately'), wide: true, entries }];
};

function groupsOf(found: Found | undefined, text: string, person: Finder): readonly Group[] {
  const { requests = [], views = [], forms = [], people = [] } = found ?? {};
  const words = [...wordsOf(text), ...(found?.words ?? [])];
  const named = (to: string, name: string, besides = ''): Entry => ({
    to,
    shown: (
      <>
        {name} <span className="text-[12.5px] text-soft">{besides}</span>
      </>
    ),
  });
  const shown = (request: FoundRequest): Entry => ({
    to: `/floor/${request.thing ? 'things' : 'all'}/${request.number}`,
    shown: <RequestFound request={request} words={words} />,
  });
  return [
    {
      ...{ key: 'requests', head: say('find:requests'), wide: true },
      entries: requests.filter(({ nearly }) => !nearly).map(shown),
    },
    {
      ...{ key: 'nearly', head: say('find:nearly'), wide: true },
      entries: requests.filter(({ nearly }) => nearly).map(shown),
    },
    {
      ...{ key: 'views', head: say('find:views'), wide: false },
      entries: views.map(({ id, name }) => named(`/floor/views/${id}`, name)),
    },
    {
      ...{ key: 'forms', head: say('find:forms'), wide: false },
      entries: forms.map(({ key, title }) => named(`/workshop/${key}`, title)),
    },
    {
      ...{ key: 'people', head: say('find:people'), wide: false },
      entries: people.map(({ name }) =>
        named(`/floor/all?find=${encodeURIComponent(name)}`, name, say('find:ofPerson')),
      ),
    },
    {
      ...{ key: 'pages', head: say('find:pages'), wide: false },
      entries: pagesCalled(text, person).map(({ to, name, in: place }) => named(to, name, place)),
    },
  ].filter(({ entries }) => entries.length > 0);
}

/** A request: what it is called, and where what was looked for stands in it. */
function RequestFound({ request, words }: { request: FoundRequest; words: readonly string[] }) {
  const { number, subject, stage, form, places } = request;
  return (
    <>
      <span className="flex items-baseline gap-3">
        <span className="font-mono text-[12.5px] text-soft">{number}</span>
        <span className="truncate font-serif text-[16px]">{told(subject)}</span>
        <span className="ml-auto whitespace-nowrap pl-4 text-[12.5px] text-soft">
          {form} · {stage.label}
        </span>
      </span>
      {places.map(({ is, label, value }) => (
        <span key={`${is} ${told(label ?? '')} ${told(value)}`} className="block truncate text-[13px]">
          <span className="text-soft">{is === 'field' ? told(label ?? '') : say(`find:place.${is}`)}</span>{' '}
          {piecesOf(told(value), words, SHOWN).map((piece) =>
            piece.meant ? (
              <mark
                key={piece.at}
                className="bg-transparent font-semibold text-ink underline decoration-brass decoration-2 underline-offset-2"
              >
                {piece.text}
              </mark>
            ) : (
              piece.text
            ),
          )}
        </span>
      ))}
    </>
  );
}
