import type { AnswerOf } from '@tolvek/contract';
import type { VisibleField } from '@tolvek/core/access';
import type { RawAnswer, RawAnswers } from '@tolvek/core/register';
import { useMemo, useState } from 'react';
import { OpenAnswer, SaveAll, useAllOpen } from '../fields/ChangeAll.tsx';
import { EditInPlace, toWorkOn } from '../fields/EditInPlace.tsx';
import { type AroundFields, AroundFieldsProvider, NOTHING_KNOWN } from '../fields/input.ts';
import { useChanging } from '../fields/useChanging.ts';
import { Button } from '../ui/Button.tsx';
import { Facts } from '../ui/Facts.tsx';
import { problemOf } from '../wire/problem.ts';
import { say } from '../wire/words.ts';

type Follow = AnswerOf<'follow'>;

interface OwnAnswersProps {
  readonly request: Pick<Follow, 'values' | 'atWork' | 'opensToChange'> & {
    readonly changing: Omit<Follow['changing'], 'again'> & Partial<Pick<Follow['changing'], 'again'>>;
  };
  readonly fileAt: (id: string) => string;
  readonly change: (changes: RawAnswers) => Promise<unknown>;
  readonly again: () => void;
  /** Tells the desk which fields somebody has begun to change. */
  readonly changing: (fields: readonly string[]) => unknown;
}

/** What somebody has typed, and what it is for. */
interface Typed {
  readonly field: Pick<VisibleField, 'key' | 'label'>;
  readonly value: RawAnswer;
}

const AGAIN_SAYS = { routing: 'desk:againRouting', decision: 'desk:againDecision' } as const;

/** What somebody sent; what they may still correct is corrected where it stands. */
export function OwnAnswers({ request, fileAt, change, again, changing: tell }: OwnAnswersProps) {
  const { changing, values } = request;
  const [typed, setTyped] = useState<Typed | null>(null);
  const [error, setError] = useState<unknown>(null);
  const [isLoading, setLoading] = useState(false);
  const [corrected, setCorrected] = useState('');
  const around = useMemo(
    (): AroundFields => ({ ...NOTHING_KNOWN, vocabularies: changing.vocabularies }),
    [changing.vocabularies],
  );
  const type = typed && changing.types[typed.field.key];
  const [isOpen, setOpen] = useState(request.opensToChange);
  const all = useAllOpen(change, again);
  useChanging(isOpen ? Object.keys(all.changes) : typed ? [typed.field.key] : [], tell);
  const stop = (): void => {
    setTyped(null);
    setError(null);
  };
  const save = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    if (!typed) return;
    setLoading(true);
    try {
      await change({ [typed.field.key]: typed.value });
      setCorrected(typed.field.key);
      stop();
    } catch (trouble) {
      setError(trouble);
      // What became otherwise meanwhile is read; what was typed stays.
      if (problemOf(trouble).status === 412) again();
    }
    setLoading(false);
  };
  const shown = values.fields.filter((field) => field.shown !== '' || field.writable);
  const helpFor = (key: string): string =>
    [changing.help[key] ?? '', changing.asksAgain.includes(key) ? say('desk:asksAgain') : '']
      .filter(Boolean)
      .join('\n');
  const canChange = shown.some(({ writable }) => writable);
  return (
    <AroundFieldsProvider value={around}>
      {typed && !type ? (
        <div role="alert" className="mt-3 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-2">
          <p>{say('desk:notAnyMore', { label: typed.field.label })}</p>
          {typeof typed.value === 'string' ? <p className="my-1 whitespace-pre-line">{typed.value}</p> : null}
          <Button onClick={stop}>{say('desk:discardTyped')}</Button>
        </div>
      ) : null}
      {canChange ? (
        <p className="mt-2 text-soft">
          {[say('desk:correctHint'), ...(changing.again ?? []).map((what) => say(AGAIN_SAYS[what]))].join(' ')}
        </p>
      ) : null}
      {request.atWork.length > 0 ? (
        <p role="status" className="mt-2 border-l-2 border-green pl-3.5">
          {say('desk:atWork', { fields: request.atWork })}
        </p>
      ) : null}
      {shown.map((field) => {
        const kind = changing.types[field.key];
        return isOpen && kind && field.writable ? (
          <OpenAnswer key={field.key} id={`own-${field.key}`} {...{ field, kind, all }} help={helpFor(field.key)} />
        ) : typed?.field.key === field.key && type ? (
          <EditInPlace
            key={field.key}
            id={`own-${field.key}`}
            field={{ key: field.key, label: field.label, type }}
            lines={field.lines}
            help={helpFor(field.key)}
            value={typed.value}
            set={(value) => setTyped({ field, value })}
            problem={error ? problemOf(error) : null}
            {...{ isLoading, save, stop }}
          />
        ) : (
          <div key={field.key} className="flex items-baseline border-b border-rule">
            <div className="flex-1">
              <Facts facts={[field]} fileAt={fileAt} isRuled={false} />
              {corrected === field.key ? (
                <p role="status" className="pb-1.5 text-[14px] text-green">
                  {say('desk:corrected')}
                </p>
              ) : null}
            </div>
            {field.writable && kind ? (
              <button
                type="button"
                className="min-h-11 shrink-0 pl-3 text-green underline"
                aria-label={say('desk:correctField', { label: field.label })}
                onClick={() => {
                  setCorrected('');
                  setError(null);
                  if (kind) setTyped({ field, value: toWorkOn(kind, field.value) });
                }}
              >
                {say('desk:correct')}
              </button>
            ) : null}
          </div>
        );
      })}
      {isOpen && canChange ? (
        <SaveAll all={all} stop={() => setOpen(false)} className="bottom-0 bg-paper pb-2.5" />
      ) : null}
    </AroundFieldsProvider>
  );
}
