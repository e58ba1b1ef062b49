import { freshKey, offerScope } from '@tolvek/core/form';
import type { Field, Kind, ReferenceKind } from '@tolvek/core/register';
import type { Key } from '@tolvek/words';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { FormulaEditor } from '../conditions/FormulaEditor.tsx';
import { Rich } from '../ui/Rich.tsx';
import { say } from '../wire/words.ts';
import { CardDetails } from './CardDetails.tsx';
import type { Editing } from './editing.ts';
import { editField } from './edits.ts';
import { LimitInput, without } from './LimitInput.tsx';

type Referring = Extract<Kind, { kind: 'reference' | 'references' }>;

const AMONG_WORDS = {
  all: 'workshop:among.all',
  unfinished: 'workshop:among.open',
  finished: 'workshop:among.finished',
  mine: 'workshop:among.mine',
} as const satisfies Record<ReferenceKind['among'], Key>;

const NO_FIELDS: readonly Field[] = [];
const NO_REGISTER = { fields: NO_FIELDS, stages: [] };

/**
 * What a reference points to: the register, what is shown of its requests, which are offered, and
 * what is brought along.
 */
export function ReferenceDetails({
  field,
  type,
  editing,
  set,
}: {
  field: Pick<Field, 'key' | 'label'>;
  type: Referring;
  editing: Editing;
  set: (type: Referring) => void;
}) {
  const { draft, registers } = editing;
  const register = registers.find((each) => each.key === type.register);
  const fields = register?.fields ?? NO_FIELDS;
  const scope = useMemo(() => offerScope(draft.fields, register ?? NO_REGISTER), [draft.fields, register]);
  const open = fields.filter((each) => !register?.restricted.includes(each.key));
  // Files have no words to find something by.
  const named = open.filter((each) => each.type.kind !== 'files' || type.shows.includes(each.key));
  const toggle = (key: string): void =>
    set({
      ...type,
      shows: type.shows.includes(key) ? type.shows.filter((each) => each !== key) : [...type.shows, key],
    });
  const id = `register-${field.key}`;
  return (
    <div className="flex flex-col gap-y-2.5">
      <span className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <select
          id={id}
          aria-label={say('workshop:refersTo')}
          className="input w-auto"
          value={register ? type.register : ''}
          onChange={(event) =>
            set(
              without({
                ...type,
                register: event.target.value,
                shows: [],
                offered: undefined,
                cards: undefined,
              }) as Referring,
            )
          }
        >
          <option value="">{say('workshop:chooseRegister')}</option>
          {registers.map((each) => (
            <option key={each.key} value={each.key}>
              {each.name}
            </option>
          ))}
        </select>
        <select
          aria-label={say('workshop:whichOfThem')}
          className="input w-auto"
          value={type.among}
          onChange={(event) => set({ ...type, among: event.target.value as ReferenceKind['among'] })}
        >
          {Object.entries(AMONG_WORDS).map(([among, words]) => (
            <option key={among} value={among}>
              {say(words)}
            </option>
          ))}
        </select>
        {type.kind === 'references' ? (
          <LimitInput
            label={say('workshop:atMost')}
            width="w-16"
            value={type.most}
            set={(most) => set(without({ ...type, most }) as Referring)}
          />
        ) : null}
        {register ? null : <Link to="/workshop/new">{say('workshop:makeThings')}</Link>}
      </span>
      {register ? (
        <>
          <fieldset>
            <legend className="mb-1">{say('workshop:knownBy')}</legend>
            <span className="flex flex-wrap gap-x-4 gap-y-1 text-ink">
              {named.map((each) => (
                <label key={each.key} className="flex items-center gap-1.5">
                  <input
                    type="checkbox"
                    className="accent-green"
                    checked={type.shows.includes(each.key)}
                    onChange={() => toggle(each.key)}
                  />
                  {each.label}
                </label>
              ))}
            </span>
            <p className="mt-1 text-[12.5px]">
              {type.shows.length === 0 ? say('workshop:onlyByNumber') : say('workshop:inThisOrder')}
              {register.restricted.length > 0 ? say('workshop:restrictedStay', { n: register.restricted.length }) : ''}
            </p>
          </fieldset>
          <label className="flex items-center gap-2 text-ink">
            <input
              type="checkbox"
              className="accent-green"
              checked={type.offered !== undefined}
              onChange={(event) =>
                set(
                  without({
                    ...type,
                    offered: event.target.checked ? `it.${open[0]?.key ?? 'name'} != null` : undefined,
                  }) as Referring,
                )
              }
            />
            {say('workshop:offerOnly')}
          </label>
          {type.offered === undefined ? null : (
            <div>
              <FormulaEditor
                name={say('workshop:limitOf', { label: field.label })}
                formula={type.offered}
                scope={scope}
                set={(offered) => set({ ...type, offered })}
              />
              <p className="mt-1 text-[12.5px]">
                <Rich text="workshop:itHint" filled={{ example: <code>{`it.${open[0]?.key ?? 'name'}`}</code> }} />
              </p>
            </div>
          )}
          <CardDetails type={type} open={open} set={set} />
          {type.kind === 'reference' ? <BroughtAlong field={field} open={open} editing={editing} /> : null}
        </>
      ) : null}
    </div>
  );
}

/**
 * Values that come along with the choice, each a field of this form’s register under a name of its
 * own.
 */
function BroughtAlong({
  field,
  open,
  editing: { draft, change },
}: {
  field: Pick<Field, 'key' | 'label'>;
  open: readonly Field[];
  editing: Editing;
}) {
  const brought = draft.fields.filter((each) => each.source === 'carried' && each.reference === field.key);
  const free = open.filter(
    (each) => !brought.some((one) => one.source === 'carried' && one.field === each.key) && each.type.kind !== 'files',
  );
  const add = (key: string): void => {
    const source = open.find((each) => each.key === key);
    if (!source) return;
    change((before) => {
      const carried: Field = {
        key: freshKey(`${field.key} ${source.key}`, new Set(before.fields.map((each) => each.key))),
        label: source.label,
        type: source.type,
        source: 'carried',
        reference: field.key,
        field: source.key,
        live: true,
      };
      return { ...before, fields: [...before.fields, carried] };
    });
  };
  return (
    <div>
      <p className="mb-1">{say('workshop:carriedWith')}</p>
      {brought.map((each) => (
        <p key={each.key} className="mb-1 flex items-center gap-2">
          <input
            aria-label={say('workshop:carriedName', { label: each.label })}
            className="input flex-1"
            value={each.label}
            onChange={(event) =>
              change((before) => editField(before, each.key, (one) => ({ ...one, label: event.target.value })))
            }
          />
          <select
            aria-label={say('workshop:carriedHow', { label: each.label })}
            className="input w-auto"
            value={each.source === 'carried' && each.live ? 'live' : 'frozen'}
            onChange={(event) =>
              change((before) =>
                editField(before, each.key, (one) =>
                  one.source === 'carried' ? { ...one, live: event.target.value === 'live' } : one,
                ),
              )
            }
          >
            <option value="live">{say('workshop:carriedLive')}</option>
            <option value="frozen">{say('workshop:carriedFrozen')}</option>
          </select>
          <button
            type="button"
            className="min-h-6 text-[13px] text-brick"
            onClick={() =>
              change((before) => ({ ...before, fields: before.fields.filter((one) => one.key !== each.key) }))
            }
          >
            {say('workshop:leaveOut')}
          </button>
        </p>
      ))}
      {free.length > 0 ? (
        <select
          aria-label={say('workshop:carryAnother')}
          className="input w-auto"
          value=""
          onChange={(event) => add(event.target.value)}
        >
          <option value="">
            {brought.length === 0 ? say('workshop:nothingChosen') : say('workshop:anotherValue')}
          </option>
          {free.map((each) => (
            <option key={each.key} value={each.key}>
              {each.label}
            </option>
          ))}
        </select>
      ) : null}
    </div>
  );
}
