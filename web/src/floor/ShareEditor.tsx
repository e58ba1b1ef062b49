import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { readerScope, SHARED_FACTS } from '@tolvek/core/access';
import { fieldKeyOf, partsOf } from '@tolvek/core/register';
import { useDeferredValue, useEffect, useId, useMemo, useState } from 'react';
import { toast } from 'sonner';
import { ConditionBuilder } from '../conditions/ConditionBuilder.tsx';
import { firstCondition } from '../conditions/firstCondition.ts';
import { DayField } from '../fields/DateInput.tsx';
import { Button } from '../ui/Button.tsx';
import { ProblemsAt } from '../ui/ProblemsAt.tsx';
import { meApi } from '../wire/me.ts';
import { say, told } from '../wire/words.ts';
import { CannotOpen } from './CannotOpen.tsx';
import { floorApi } from './endpoints.ts';
import { NamedWho } from './NamedWho.tsx';

type Shared = BodyOf<'changeShared'>;
type Mine = AnswerOf<'sharedResults'>['mine'][number];
type Whom = 'named' | 'everyone' | 'link';

interface ShareEditorProps {
  readonly registers: AnswerOf<'sharedResults'>['registers'];
  /** What is changed; null: something new. */
  readonly shared: Mine | null;
  readonly close: () => void;
}

const NEW: Shared = {
  ...{ name: '', facts: ['number'], fields: [], when: '', audience: { in: { anyOf: [] }, outOf: [] }, until: '' },
  takesOut: false,
};

const whomOf = ({ audience }: Shared): Whom =>
  audience === null ? 'link' : 'everyone' in audience.in ? 'everyone' : 'named';
const wordsOf = ({ audience }: Shared): readonly string[] =>
  audience && 'anyOf' in audience.in ? audience.in.anyOf : [];
const toggled = <T,>(list: readonly T[], one: T): T[] =>
  list.includes(one) ? list.filter((each) => each !== one) : [...list, one];

/** What is shared, of which requests, for whom, until when; with what those it is for would see. */
export function ShareEditor({ registers, shared, close }: ShareEditorProps) {
  const id = useId();
  const [register, setRegister] = useState(
    shared?.register ?? (registers.length === 1 ? (registers[0]?.key ?? '') : ''),
  );
  const [draft, setDraft] = useState<Shared>(() => {
    if (!shared) return NEW;
    const { name, facts, fields, when, audience, until, takesOut } = shared;
    return { name, facts, fields, when, audience, until, takesOut };
  });
  const { data: me } = meApi.useMeQuery();
  const today = (me?.desk.now ?? '').slice(0, 10);
  const [add, adding] = floorApi.useShareResultMutation();
  const [change, changing] = floorApi.useChangeSharedMutation();
  const error = adding.error ?? changing.error;
  const set = (next: Partial<Shared>): void => setDraft((before) => ({ ...before, ...next }));
  // A month, unless another day is chosen.
  useEffect(() => {
    if (today !== '') setDraft((before) => (before.until === '' ? { ...before, until: monthAfter(today) } : before));
  }, [today]);
  const { data: sharable } = floorApi.useSharableQuery({ key: register, query: {} }, { skip: register === '' });
  const save = async (): Promise<void> => {
    const done = shared
      ? await change({ id: shared.id, body: draft })
      : await add({ once: crypto.randomUUID(), body: { register, ...draft } });
    if ('error' in done) return;
    toast(say('shared:done'));
    close();
  };
  return (
    <div className="mt-3 border-green border-l-[3px] bg-sheet px-4 py-3">
      <div className="grid grid-cols-[9rem_1fr] items-start gap-x-4 gap-y-3">
        <label htmlFor={`${id}-register`} className="pt-1.5 text-soft">
          {say('shared:register')}
        </label>
        <select
          id={`${id}-register`}
          className="input w-auto"
          value={register}
          disabled={shared !== null}
          onChange={(event) => {
            setRegister(event.target.value);
            set({ fields: [], when: '' });
          }}
        >
          <option value="">{say('shared:chooseRegister')}</option>
          {registers.map((each) => (
            <option key={each.key} value={each.key}>
              {each.name}
            </option>
          ))}
        </select>
        <label htmlFor={`${id}-name`} className="pt-1.5 text-soft">
          {say('shared:name')}
        </label>
        <span>
          <input
            id={`${id}-name`}
            className="input"
            maxLength={120}
            placeholder={say('shared:nameHint')}
            value={draft.name}
            onChange={(event) => set({ name: event.target.value })}
          />
          <ProblemsAt error={error} field="name" />
        </span>
        {sharable ? (
          <>
            <Shows id={id} sharable={sharable} draft={draft} set={set} error={error} />
            <Which sharable={sharable} draft={draft} set={set} error={error} />
            <ForWhom id={id} register={register} draft={draft} set={set} error={error} />
          </>
        ) : null}
        <label htmlFor={`${id}-until`} className="pt-1.5 text-soft">
          {say('shared:until')}
        </label>
        <span>
          <span className="block max-w-60">
            <DayField
              id={`${id}-until`}
              value={draft.until}
              today={today}
              notBefore={today}
              withTime={false}
              onChange={(until) => set({ until })}
            />
          </span>
          <ProblemsAt error={error} field="until" />
        </span>
        <span />
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-green"
            checked={draft.takesOut}
            onChange={(event) => set({ takesOut: event.target.checked })}
          />
          {say('shared:takesOut')}
        </label>
      </div>
      {register !== '' && draft.fields.length + draft.facts.length > 0 ? (
        <Look register={register} draft={draft} />
      ) : null}
      <p className="mt-4 flex items-baseline gap-4">
        <Button
          look="main"
          disabled={register === '' || adding.isLoading || changing.isLoading}
          onClick={() => void save()}
        >
          {say(shared ? 'shared:save' : 'shared:share')}
        </Button>
        <Button onClick={close}>{say('common:cancel')}</Button>
      </p>
    </div>
  );
}

/** A month after a day, `YYYY-MM-DD`. */
function monthAfter(day: string): string {
  const [year = 0, month = 1, date = 1] = day.split('-').map(Number);
  return new Date(Date.UTC(year, month - 1, date + 30)).toISOString().slice(0, 10);
}

interface PartProps {
  readonly draft: Shared;
  readonly set: (next: Partial<Shared>) => void;
  readonly error: unknown;
}
type Sharable = AnswerOf<'sharable'>;

/** The fields, columns of lines, and facts that are shown. */
function Shows({ sharable, draft, set, error }: PartProps & { id: string; sharable: Sharable }) {
  const parts = partsOf(sharable.fields).filter(({ key }) => sharable.shares.includes(key));
  const put = (key: string): void => {
    const { fields } = draft;
    const columns = parts.flatMap((part) => (part.key !== key && fieldKeyOf(part.key) === key ? [part.key] : []));
    const isOut = fields.includes(key);
    const rest = fields.filter((each) => each !== key && fieldKeyOf(each) !== key);
    if (isOut) set({ fields: rest });
    // Lines come with the columns they have today; a column comes with its lines.
    else set({ fields: [...new Set([...fields, fieldKeyOf(key), key, ...columns])] });
  };
  return (
    <>
      <span className="pt-0.5 text-soft">{say('shared:fields')}</span>
      <fieldset>
        <legend className="sr-only">{say('shared:fields')}</legend>
        <span className="flex flex-wrap gap-x-5 gap-y-1">
          {SHARED_FACTS.map((fact) => (
            <label key={fact} className="flex min-h-6 items-center gap-2">
              <input
                type="checkbox"
                className="accent-green"
                checked={draft.facts.includes(fact)}
                onChange={() =>
                  set({ facts: SHARED_FACTS.filter((each) => toggled(draft.facts, fact).includes(each)) })
                }
              />
              {say(`sharedPage:fact.${fact}`)}
            </label>
          ))}
        </span>
        <span className="mt-1 grid grid-cols-2 gap-x-5 gap-y-1 border-t border-rule pt-1 lg:grid-cols-3">
          {parts.map(({ key, label }) => (
            <label key={key} className={`flex min-h-6 items-center gap-2 ${fieldKeyOf(key) === key ? '' : 'pl-5'}`}>
              <input
                type="checkbox"
                className="accent-green"
                checked={draft.fields.includes(key)}
                onChange={() => put(key)}
              />
              {label}
            </label>
          ))}
        </span>
        <p className="mt-1 text-[13px] text-soft">{say('shared:fieldsHint')}</p>
        <ProblemsAt error={error} field="fields" />
      </fieldset>
    </>
  );
}

/** Which requests: all of them, or those that meet a condition. */
function Which({ sharable, draft, set, error }: PartProps & { sharable: Sharable }) {
  const scope = useMemo(() => {
    const { asks, stages, forms, vocabularies, groups } = sharable;
    const fields = sharable.fields.filter(({ key }) => asks.includes(key));
    const known = { stages, forms, vocabularies, groups: groups.map(({ key, name }) => ({ key, label: name })) };
    return readerScope(fields, known);
  }, [sharable]);
  return (
    <>
      <span className="pt-0.5 text-soft">{say('shared:which')}</span>
      <fieldset>
        <legend className="sr-only">{say('shared:which')}</legend>
        {(['everyRequest', 'onlyThose'] as const).map((each) => (
          <label key={each} className="flex min-h-7 items-center gap-2">
            <input
              type="radio"
              className="accent-green"
              checked={(draft.when === '') === (each === 'everyRequest')}
              onChange={() => set({ when: each === 'everyRequest' ? '' : firstCondition(scope) })}
            />
            {say(`shared:${each}`)}
          </label>
        ))}
        {draft.when === '' ? null : (
          <div className="mt-1">
            <ConditionBuilder condition={draft.when} scope={scope} set={(when) => set({ when })} />
          </div>
        )}
        <ProblemsAt error={error} field="when" />
      </fieldset>
    </>
  );
}

/** For whom it is: people and groups by name, all staff, or whoever has the link. */
function ForWhom({ id, register, draft, set, error }: PartProps & { id: string; register: string }) {
  const [find, setFind] = useState('');
  const looking = useDeferredValue(find.trim());
  const { data } = floorApi.useSharableQuery({ key: register, query: { find: looking } });
  const [names, setNames] = useState<Readonly<Record<string, string>>>({});
  const whom = whomOf(draft);
  const chosen = wordsOf(draft);
  const put = (words: readonly string[]): void => set({ audience: { in: { anyOf: [...words] }, outOf: [] } });
  const choose: Readonly<Record<Whom, () => void>> = {
    named: () => put([]),
    everyone: () => set({ audience: { in: { everyone: true }, outOf: [] } }),
    link: () => set({ audience: null }),
  };
  return (
    <>
      <span className="pt-0.5 text-soft">{say('shared:forWhom')}</span>
      <fieldset>
        <legend className="sr-only">{say('shared:forWhom')}</legend>
        {(['named', 'everyone', 'link'] as const).map((each) => (
          <label key={each} className="flex min-h-7 items-center gap-2">
            <input type="radio" className="accent-green" checked={whom === each} onChange={choose[each]} />
            {say(`shared:whom.${each}`)}
          </label>
        ))}
        {whom === 'link' ? <p className="mt-1 text-[13px] text-soft">{say('shared:linkHint')}</p> : null}
        {whom === 'named' ? (
          <NamedWho
            {...{ id, names, put }}
            words={chosen}
            found={data}
            find={setFind}
            dropped={(name) => say('shared:takeOut', { name })}
            called={(word, name) => setNames((before) => ({ ...before, [word]: name }))}
          />
        ) : null}
        <ProblemsAt error={error} field="audience" />
      </fieldset>
    </>
  );
}

/** What those it is for would see, how many they are, and who of them can’t open it. */
function Look({ register, draft }: { register: string; draft: Shared }) {
  const looked = useDeferredValue(draft);
  const { data, isFetching } = floorApi.useLookAtSharedQuery({ body: { register, ...looked } });
  if (!data) return null;
  const { facts, columns, rows, total, more, people, cannotOpen, hiddenFromSome } = data;
  return (
    <div className={`mt-4 ${isFetching ? 'cursor-progress' : ''}`} aria-busy={isFetching} aria-live="polite">
      <h3 className="section-head">{say('shared:preview')}</h3>
      <p className="mt-1">
        {say(more ? 'sharedPage:moreThan' : 'sharedPage:matches', { count: total })}.{' '}
        {people === null ? say('shared:reachesLink') : say('shared:reaches', { count: people })}
      </p>
      {hiddenFromSome.length > 0 ? <p>{say('shared:hiddenFromSome', { fields: hiddenFromSome })}</p> : null}
      <CannotOpen names={cannotOpen} />
      <div className="mt-1 overflow-x-auto">
        <table className="w-full border-collapse">
          <thead>
            <tr className="border-b border-rule-strong text-left text-[12.5px] text-soft">
              {facts.map((fact) => (
                <th key={fact} scope="col" className="py-1 pr-4 font-semibold">
                  {say(`sharedPage:fact.${fact}`)}
                </th>
              ))}
              {columns.map(({ key, label }) => (
                <th key={key} scope="col" className="py-1 pr-4 font-semibold">
                  {label}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: they are shown as they come
              <tr key={index} className="border-b border-rule align-top">
                {[...row.facts, ...row.cells].map((words, place) => (
                  <td
                    key={place < facts.length ? facts[place] : columns[place - facts.length]?.key}
                    className="max-w-56 truncate py-1 pr-4"
                  >
                    {told(words) || '—'}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {hiddenFromSome.length > 0 ? <p className="mt-1 text-[13px] text-soft">{say('shared:previewHint')}</p> : null}
    </div>
  );
}
