import { type Edition, type Part, partKey, partName, withOwnParts } from '@tolvek/core/form';
import { type Field, isFilled } from '@tolvek/core/register';
import { useId } from 'react';
import { Boxes } from '../../ui/Boxes.tsx';
import { Button } from '../../ui/Button.tsx';
import { say } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { PresetEditor } from '../PresetEditor.tsx';
import { ActionsEditor } from './ActionsEditor.tsx';
import {
  saidOf,
  withOffers,
  withOwn,
  withPlace,
  withPreset,
  withRequired,
  withShown,
  withWords,
} from './editionEdits.ts';

interface PartEditorProps {
  readonly edition: Edition;
  /** What it is about: a part of the form, of the edition’s own, or a field that nobody is asked. */
  readonly about: string;
  readonly set: (next: (edition: Edition) => Edition) => void;
  readonly close: () => void;
}

const SHOWN = ['asForm', 'hide', 'lock'] as const;
const REQUIRED = ['asForm', 'require', 'spare'] as const;

/** All that an edition can have otherwise about one part, as the form has it beside. */
export function PartEditor({ edition, about, set, close }: PartEditorProps) {
  const id = useId();
  const { draft, proof } = useBinder().editing;
  const form = withOwnParts(draft, edition);
  const own = edition.differences.find((each) => each.does === 'add' && partKey(each.adds) === about);
  const part = form.parts.find((each) => partKey(each) === about);
  const field = draft.fields.find((each) => each.key === about);
  const name = partName(form, about);
  const shown = saidOf(edition, 'hide', about) ? 'hide' : saidOf(edition, 'lock', about) ? 'lock' : 'asForm';
  const isQuestion = part?.part === 'question';
  const isLockable = isQuestion || !part;
  return (
    <fieldset className="my-2 grid grid-cols-[8rem_1fr] items-start gap-x-4 gap-y-2.5 border-l-[3px] border-brass bg-paper px-3 py-2.5">
      <legend className="sr-only">{say('editions:about', { name })}</legend>
      <b className="col-span-2">{name}</b>
      {own ? null : (
        <>
          <label htmlFor={`${id}-shown`} className="pt-1.5 text-soft">
            {say('editions:isShown')}
          </label>
          <select
            id={`${id}-shown`}
            className="input w-auto justify-self-start"
            value={shown}
            onChange={(event) => set((before) => withShown(before, about, event.target.value as 'hide'))}
          >
            {SHOWN.filter((each) => each !== 'lock' || isLockable).map((each) => (
              <option key={each} value={each}>
                {say(`editions:shown.${each}`)}
              </option>
            ))}
          </select>
        </>
      )}
      {isQuestion && field && shown !== 'hide' ? (
        <OfQuestion {...{ id, edition, part, field, set }} isLocked={shown === 'lock'} isOwn={own !== undefined} />
      ) : null}
      {part && part.part !== 'question' && shown !== 'hide' ? (
        <OfWords {...{ id, edition, part, set }} isOwn={own !== undefined} />
      ) : null}
      {part && shown !== 'hide' ? (
        <Place {...{ id, edition, about, set }} own={own?.does === 'add' ? own : null} />
      ) : null}
      {field && isFilled(field) && isQuestion && shown !== 'hide' ? (
        <Begins {...{ edition, field, set, draft, scope: proof.scope }} />
      ) : null}
      <span className="col-span-2">
        <Button onClick={close}>{say('editions:doneWithPart')}</Button>
      </span>
    </fieldset>
  );
}

interface OfPart {
  readonly id: string;
  readonly edition: Edition;
  readonly set: PartEditorProps['set'];
  readonly isOwn: boolean;
}

function OfQuestion({
  id,
  edition,
  part,
  field,
  set,
  isLocked,
  isOwn,
}: OfPart & { part: Extract<Part, { part: 'question' }>; field: Field; isLocked: boolean }) {
  const about = field.key;
  const words = saidOf(edition, 'reword', about);
  const required = saidOf(edition, 'require', about) ? 'require' : saidOf(edition, 'spare', about) ? 'spare' : 'asForm';
  const options = field.type.kind === 'choice' || field.type.kind === 'choices' ? field.type.options : [];
  const open = options.filter((option) => !option.retired);
  const all = open.map(({ key }) => key);
  const offers = saidOf(edition, 'offer', about)?.offers ?? all;
  const ownPart = (change: Partial<typeof part>): void =>
    set((before) => withOwn(before, about, { adds: { ...part, ...change } }));
  return (
    <>
      {isLocked ? null : isOwn ? (
        <>
          <span />
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="accent-green"
              checked={part.required}
              onChange={(event) => ownPart({ required: event.target.checked })}
            />
            {say('editions:isRequired')}
          </label>
        </>
      ) : (
        <>
          <label htmlFor={`${id}-required`} className="pt-1.5 text-soft">
            {say('editions:answer')}
          </label>
          <select
            id={`${id}-required`}
            className="input w-auto justify-self-start"
            value={required}
            onChange={(event) => set((before) => withRequired(before, about, event.target.value as 'require'))}
          >
            {REQUIRED.map((each) => (
              <option key={each} value={each}>
                {say(
                  each === 'asForm'
                    ? `editions:required.${part.required ? 'is' : 'isNot'}`
                    : `editions:required.${each}`,
                )}
              </option>
            ))}
          </select>
        </>
      )}
      <label htmlFor={`${id}-asks`} className="pt-1.5 text-soft">
        {say('editions:askedAs')}
      </label>
      <input
        id={`${id}-asks`}
        className="input"
        maxLength={200}
        placeholder={part.asks || field.label}
        value={isOwn ? part.asks : (words?.asks ?? '')}
        onChange={({ target: { value } }) =>
          isOwn ? ownPart({ asks: value }) : set((before) => withWords(before, about, 'asks', value || undefined))
        }
      />
      <label htmlFor={`${id}-help`} className="pt-1.5 text-soft">
        {say('editions:explainedAs')}
      </label>
      <textarea
        id={`${id}-help`}
        className="input"
        rows={2}
        maxLength={1_000}
        placeholder={part.help}
        value={isOwn ? part.help : (words?.help ?? '')}
        onChange={({ target: { value } }) =>
          isOwn ? ownPart({ help: value }) : set((before) => withWords(before, about, 'help', value || undefined))
        }
      />
      {open.length > 0 && !isLocked ? (
        <>
          <span className="text-soft">{say('editions:offered')}</span>
          <fieldset>
            <legend className="sr-only">{say('editions:offered')}</legend>
            <Boxes
              all={open.map(({ key, label }) => ({ key, label }))}
              chosen={offers}
              toggle={(key) =>
                set((before) => {
                  const now = saidOf(before, 'offer', about)?.offers ?? all;
                  const next = now.includes(key) ? now.filter((each) => each !== key) : [...now, key];
                  return withOffers(before, about, next, all);
                })
              }
            />
          </fieldset>
        </>
      ) : null}
    </>
  );
}

function OfWords({ id, edition, part, set, isOwn }: OfPart & { part: Exclude<Part, { part: 'question' }> }) {
  const words = saidOf(edition, 'reword', part.id);
  const line = (which: 'title' | 'text', label: string, base: string): React.ReactNode => (
    <>
      <label htmlFor={`${id}-${which}`} className="pt-1.5 text-soft">
        {label}
      </label>
      <textarea
        id={`${id}-${which}`}
        className="input"
        rows={which === 'title' ? 1 : 3}
        maxLength={which === 'title' ? 200 : 5_000}
        placeholder={isOwn ? undefined : base}
        value={isOwn ? base : (words?.[which] ?? '')}
        onChange={({ target: { value } }) =>
          set((before) =>
            isOwn
              ? withOwn(before, part.id, { adds: { ...part, [which]: value } as Part })
              : withWords(before, part.id, which, value || undefined),
          )
        }
      />
    </>
  );
  return (
    <>
      {part.part === 'instruction' ? null : line('title', say('editions:calledTitle'), part.title)}
      {line('text', say('editions:saysText'), part.text)}
      {isOwn && part.part === 'instruction' ? (
        <ActionsEditor
          {...{ edition, part }}
          set={(actions) =>
            set((before) => {
              const { actions: _, ...plain } = part;
              return withOwn(before, part.id, { adds: actions.length > 0 ? { ...plain, actions } : plain });
            })
          }
        />
      ) : null}
    </>
  );
}

const AS_FORM = '*';
const FIRST = '';

/** Where a part stands in this edition. */
function Place({
  id,
  edition,
  about,
  set,
  own,
}: Omit<OfPart, 'isOwn'> & { about: string; own: { readonly after: string | null } | null }) {
  const { draft } = useBinder().editing;
  const form = withOwnParts(draft, edition);
  const moved = saidOf(edition, 'move', about);
  const after = own ? own.after : moved?.after;
  return (
    <>
      <label htmlFor={`${id}-place`} className="pt-1.5 text-soft">
        {say('editions:stands')}
      </label>
      <select
        id={`${id}-place`}
        className="input w-full max-w-96"
        value={after === undefined ? AS_FORM : (after ?? FIRST)}
        onChange={({ target: { value } }) => {
          const next = value === AS_FORM ? undefined : value === FIRST ? null : value;
          set((before) => (own ? withOwn(before, about, { after: next ?? null }) : withPlace(before, about, next)));
        }}
      >
        {own ? null : <option value={AS_FORM}>{say('editions:asInForm')}</option>}
        <option value={FIRST}>{say('editions:placeFirst')}</option>
        {form.parts
          .filter((part) => partKey(part) !== about)
          .map((part) => (
            <option key={partKey(part)} value={partKey(part)}>
              {say('editions:placeAfter', { name: partName(form, partKey(part)) })}
            </option>
          ))}
      </select>
    </>
  );
}

type BeginsProps = Pick<OfPart, 'edition' | 'set'> & Omit<Parameters<typeof PresetEditor>[0], 'set'>;

/** What stands in a question at first: as the form has it, or otherwise. */
function Begins({ edition, field, set, draft, scope }: BeginsProps) {
  const said = saidOf(edition, 'preset', field.key);
  const id = useId();
  const { preset: _, ...plain } = field;
  const shown = said?.preset ? { ...plain, preset: said.preset } : plain;
  return (
    <>
      <span />
      <label htmlFor={id} className="flex items-center gap-2">
        <input
          id={id}
          type="checkbox"
          className="accent-green"
          checked={said !== undefined}
          onChange={(event) =>
            set((before) => withPreset(before, field.key, event.target.checked ? (field.preset ?? null) : undefined))
          }
        />
        {say('editions:otherDefault')}
      </label>
      {said ? (
        <PresetEditor
          field={shown as typeof field}
          {...{ draft, scope }}
          set={(preset) => set((before) => withPreset(before, field.key, preset ?? null))}
        />
      ) : null}
    </>
  );
}
