import type { AnswerOf } from '@tolvek/contract';
import { freshKey } from '@tolvek/core/form';
import { DIRECTORY_ATTRIBUTES, PERSON_ENTRIES, type ProfileField, type ProfileKind } from '@tolvek/core/register';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { ProblemsAt } from '../../ui/ProblemsAt.tsx';
import { Trouble, WholeTrouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { say, told } from '../../wire/words.ts';
import type { KindAround } from '../editing.ts';
import { freshType, kindLabel, moved } from '../edits.ts';
import { KindDetails } from '../KindDetails.tsx';
import { MoveButtons } from '../MoveButtons.tsx';
import { groundApi } from './endpoints.ts';
import { States } from './States.tsx';

type Opened = AnswerOf<'profile'>;

/** The kinds that a field of profiles can be of, in the order they are offered. */
const KINDS = [
  'text',
  'choice',
  'choices',
  'level',
  'yes-no',
  'date',
  'person',
  'people',
  'term',
  'terms',
  'phone',
  'email',
  'link',
  'number',
  'money',
  'duration',
  'date-time',
  'long-text',
] as const satisfies readonly ProfileKind['kind'][];

const WHOSE: readonly ProfileField['of'][] = ['staff', 'contact', 'everybody'];

/** What the desk knows of people besides their names and addresses: fields that the coordinator chooses. */
export function ProfilePage() {
  useTitle(say('ground:profiles'));
  const { data, error, refetch } = groundApi.useProfileQuery();
  return (
    <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
      {error ? <Trouble error={error} again={refetch} /> : null}
      {data ? <OpenProfile key={data.version} opened={data} /> : null}
    </main>
  );
}

function OpenProfile({ opened }: { opened: Opened }) {
  const [fields, setFields] = useState<readonly ProfileField[]>(opened.fields);
  const [open, setOpen] = useState<number | null>(null);
  const [save, { isLoading, error }] = groundApi.useChangeProfileMutation();
  const changed = JSON.stringify(fields) !== JSON.stringify(opened.fields);
  const edit = (key: string, change: Partial<ProfileField>): void =>
    setFields((before) => before.map((field) => (field.key === key ? { ...field, ...change } : field)));
  const put = async (next: readonly ProfileField[]): Promise<void> => {
    setFields(next);
    const saved = await save({ version: opened.version, body: { fields: next } });
    if (!('error' in saved)) toast(say('ground:profileSaved'));
  };
  const add = (): void => {
    const label = say('ground:newField');
    const taken = new Set<string>([...PERSON_ENTRIES, ...[...fields, ...opened.fields].map(({ key }) => key)]);
    const key = freshKey(label, taken);
    setFields([...fields, { key, label: '', type: freshType('text'), of: 'everybody', listed: false }]);
    setOpen(fields.length);
  };
  return (
    <div className="max-w-[52rem]">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h1>{say('ground:profiles')}</h1>
        <span className="flex gap-2">
          {changed ? <Button onClick={() => setFields(opened.fields)}>{say('ground:undoChanges')}</Button> : null}
          <Button
            look="main"
            disabled={!changed || isLoading}
            onClick={() => void put(withKeys(fields, opened.fields))}
          >
            {isLoading ? say('workshop:saving') : say('workshop:saveChanges')}
          </Button>
        </span>
      </div>
      <p className="text-soft">{say('ground:profilesHint')}</p>
      <WholeTrouble error={error} />
      <ul className="mt-4">
        {fields.map((field, index) => (
          <FieldRow
            key={field.key}
            {...{ field, index, opened, error }}
            of={fields.length}
            around={{ fields, groups: opened.groups, vocabularies: opened.vocabularies, editing: null }}
            isOpen={open === index}
            toggle={() => setOpen(open === index ? null : index)}
            edit={(change) => edit(field.key, change)}
            move={(way) => {
              setFields(moved(fields, index, way));
              setOpen(index + way);
            }}
            drop={() => {
              setFields(fields.filter((each) => each.key !== field.key));
              setOpen(null);
            }}
          />
        ))}
        {fields.length === 0 ? <li className="border-y border-rule py-3 text-soft">{say('ground:noFields')}</li> : null}
      </ul>
      <p className="mt-3">
        <Button onClick={add}>{say('ground:addField')}</Button>
      </p>
      {opened.states.length > 0 ? (
        <section className="mt-10">
          <h2 className="section-head">{say('ground:whatWasSet')}</h2>
          <States
            states={opened.states}
            back={(state) => void put(state.fields)}
            about={({ changes }) =>
              changes.map((change) => (
                <span key={told(change.words)} className="block">
                  {told(change.words)}
                </span>
              ))
            }
          />
        </section>
      ) : null}
    </div>
  );
}

/** New fields get their keys from what they are called when they are saved: until then nothing names them. */
function withKeys(fields: readonly ProfileField[], before: readonly ProfileField[]): readonly ProfileField[] {
  const kept = new Set(before.map(({ key }) => key));
  const taken = new Set<string>([...PERSON_ENTRIES, ...kept]);
  return fields.map((field) => {
    if (kept.has(field.key)) return field;
    const key = freshKey(field.label, taken);
    taken.add(key);
    return { ...field, key };
  });
}

interface RowProps {
  readonly field: ProfileField;
  readonly index: number;
  readonly of: number;
  readonly opened: Opened;
  readonly error: unknown;
  readonly around: KindAround;
  readonly isOpen: boolean;
  readonly toggle: () => void;
  readonly edit: (change: Partial<ProfileField>) => void;
  readonly move: (way: -1 | 1) => void;
  readonly drop: () => void;
}

/** A field as a line; opened, everything about it is set in place. */
function FieldRow({ field, index, of, opened, error, around, isOpen, toggle, edit, move, drop }: RowProps) {
  const { key, label, type } = field;
  const isNew = !opened.fields.some((each) => each.key === key);
  const filled = isNew ? 0 : (opened.filled[key] ?? 0);
  const uses = isNew ? [] : opened.uses.filter((use) => use.field === key);
  const id = `field ${key}`;
  return (
    <li className={isOpen ? '-mx-3.5 border border-l-[3px] border-green bg-sheet px-3.5 py-3' : 'border-b border-rule'}>
      <div className="grid grid-cols-[minmax(0,1fr)_140px_140px_110px] items-baseline gap-x-3">
        <button
          type="button"
          aria-expanded={isOpen}
          onClick={toggle}
          className={`truncate py-2 text-left text-[15.5px] ${field.retired ? 'text-soft line-through' : ''}`}
        >
          {label || say('workshop:noNameYet')}
        </button>
        <span className="text-soft">{say(`fieldKinds:${type.kind}`)}</span>
        <span className="text-soft">{say(`ground:whose.${field.of}`)}</span>
        <span className="text-right text-soft">{filled > 0 ? say('ground:filledBy', { count: filled }) : ''}</span>
      </div>
      <ProblemsAt error={error} field={key} />
      {isOpen ? (
        <div className="mt-2 grid grid-cols-[110px_minmax(0,1fr)] items-center gap-x-3 gap-y-2 text-soft">
          <label htmlFor={`${id} label`}>{say('workshop:name')}</label>
          <input
            id={`${id} label`}
            className="input"
            value={label}
            onChange={(event) => edit({ label: event.target.value })}
          />
          <label htmlFor={`${id} kind`}>{say('workshop:kind')}</label>
          <select
            id={`${id} kind`}
            className="input w-auto"
            value={type.kind}
            disabled={filled > 0}
            onChange={(event) => edit({ type: freshType(event.target.value as ProfileKind['kind']) })}
          >
            {KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {kindLabel(kind)}
              </option>
            ))}
          </select>
          <KindDetails field={field} around={around} setType={(next) => edit({ type: next as ProfileKind })} />
          <label htmlFor={`${id} of`}>{say('ground:whoseName')}</label>
          <select
            id={`${id} of`}
            className="input w-auto"
            value={field.of}
            onChange={(event) => edit({ of: event.target.value as ProfileField['of'] })}
          >
            {WHOSE.map((each) => (
              <option key={each} value={each}>
                {say(`ground:whose.${each}`)}
              </option>
            ))}
          </select>
          {field.of === 'contact' ? null : (
            <>
              <label htmlFor={`${id} directory`}>{say('directory:fillsIn')}</label>
              <select
                id={`${id} directory`}
                className="input w-auto"
                value={field.directory ?? ''}
                onChange={({ target: { value } }) =>
                  edit({ directory: DIRECTORY_ATTRIBUTES.find((each) => each === value) })
                }
              >
                <option value="">{say('directory:fillsInNot')}</option>
                {DIRECTORY_ATTRIBUTES.map((each) => (
                  <option key={each} value={each}>
                    {say(`directory:attribute.${each}`)}
                  </option>
                ))}
              </select>
            </>
          )}
          <span />
          <label className="flex items-center gap-2 text-ink">
            <input
              type="checkbox"
              className="accent-green"
              checked={field.listed ?? false}
              onChange={(event) => edit({ listed: event.target.checked })}
            />
            {say('ground:listed')}
          </label>
          {uses.length > 0 ? (
            <>
              <span className="self-start">{say('ground:readIn')}</span>
              <span className="flex flex-wrap gap-x-3">
                {uses.map((use) => (
                  <Link key={use.to} to={use.to}>
                    {use.title}
                  </Link>
                ))}
              </span>
            </>
          ) : null}
          <span />
          <div className="flex flex-wrap items-center gap-2">
            <MoveButtons index={index} of={of} words={[say('workshop:moveUp'), say('workshop:moveDown')]} move={move} />
            {isNew ? null : (
              <Button onClick={() => edit({ retired: !field.retired })}>
                {say(field.retired ? 'ground:askAgain' : 'ground:askNoMore')}
              </Button>
            )}
            {uses.length === 0 ? (
              <Button look="refuse" onClick={drop}>
                {filled > 0 ? say('ground:removeFilled', { count: filled }) : say('ground:removeField')}
              </Button>
            ) : null}
          </div>
        </div>
      ) : null}
    </li>
  );
}
