import { exceptionScope } from '@tolvek/core/access';
import type { Scope } from '@tolvek/core/expression';
import {
  ASKING,
  aboutPart,
  allQuestionsOf,
  differenceInWords,
  differenceKey,
  type Edition,
  type Elsewhere,
  partKey,
  partName,
  withOwnParts,
} from '@tolvek/core/form';
import { useId, useState } from 'react';
import { Boxes } from '../../ui/Boxes.tsx';
import { Button } from '../../ui/Button.tsx';
import { say, told } from '../../wire/words.ts';
import { AudienceFields } from '../access/AudienceFields.tsx';
import { toggled } from '../access/planEdits.ts';
import { profileScopeOf } from '../access/ruleWords.ts';
import { useBinder } from '../binder.ts';
import { workshopApi } from '../endpoints.ts';
import { OptionalCondition } from '../OptionalCondition.tsx';
import { addQuestionOf, addWords, changeEdition, withOnly, withoutDifference } from './editionEdits.ts';
import { PartEditor } from './PartEditor.tsx';

/** The names that conditions of editions use. */
export function useEditionScope(): Scope {
  const { editing, form } = useBinder();
  const { data: ground } = workshopApi.useGroundQuery();
  return exceptionScope(editing.draft.fields, {
    stages: form.stages,
    groups: ground?.groups.map(({ key, name }) => ({ key, label: name })) ?? [],
    vocabularies: ground?.vocabularies ?? [],
    profile: ground?.profile ?? [],
  });
}

interface EditionEditorProps {
  readonly edition: Edition;
  /** What people are called whom it names, by their ids. */
  readonly people: Readonly<Record<string, string>>;
  readonly close: () => void;
}

/** One edition to be worked on: whom it is for, when, and what differs. */
export function EditionEditor({ edition, people, close }: EditionEditorProps) {
  const id = useId();
  const { editing, form } = useBinder();
  const { change } = editing;
  const { data: ground } = workshopApi.useGroundQuery();
  const scope = useEditionScope();
  const set = (next: (before: Edition) => Edition): void => change(changeEdition(edition.id, next));
  const stages = [{ key: ASKING, label: say('editions:whileAsking') }, ...form.stages];
  return (
    <div className="mt-3 grid grid-cols-[8rem_1fr] items-start gap-x-4 gap-y-3">
      <label htmlFor={`${id}-name`} className="pt-1.5 text-soft">
        {say('editions:name')}
      </label>
      <span>
        <input
          id={`${id}-name`}
          className="input"
          maxLength={200}
          value={edition.name}
          onChange={({ target: { value } }) => set((before) => ({ ...before, name: value }))}
        />
        <span className="mt-1 block text-[13px] text-soft">{say('editions:nameHint')}</span>
      </span>
      <AudienceFields
        {...{ id, people }}
        byRight
        audience={edition.audience}
        groups={ground?.groups ?? []}
        profile={profileScopeOf(ground)}
        change={(next) => set((before) => ({ ...before, audience: next(before.audience) }))}
      />
      <span className="pt-1 text-soft">{say('editions:at')}</span>
      <fieldset>
        <legend className="sr-only">{say('editions:at')}</legend>
        <label className="flex min-h-6 items-center gap-2">
          <input
            type="checkbox"
            className="accent-green"
            checked={edition.stages === undefined}
            onChange={(event) =>
              set(({ stages: _, ...before }) => (event.target.checked ? before : { ...before, stages: [ASKING] }))
            }
          />
          {say('editions:always')}
        </label>
        {edition.stages ? (
          <Boxes
            all={stages}
            chosen={edition.stages}
            toggle={(key) => set((before) => ({ ...before, stages: toggled(before.stages ?? [], key) }))}
          />
        ) : null}
      </fieldset>
      <span className="pt-1 text-soft">{say('editions:while')}</span>
      <fieldset>
        <legend className="sr-only">{say('editions:while')}</legend>
        <OptionalCondition
          condition={edition.when}
          scope={scope}
          set={(when) => set((before) => ({ ...before, when }))}
        />
      </fieldset>
      <LeadsTo id={id} edition={edition} set={set} />
      {edition.elsewhere ? null : (
        <>
          <span className="text-soft">{say('editions:differs')}</span>
          <Differences edition={edition} set={set} />
          <label htmlFor={`${id}-title`} className="pt-1.5 text-soft">
            {say('editions:formTitle')}
          </label>
          <input
            id={`${id}-title`}
            className="input"
            maxLength={200}
            placeholder={editing.draft.title}
            value={edition.title ?? ''}
            onChange={({ target: { value } }) =>
              set(({ title: _, ...before }) => (value === '' ? before : { ...before, title: value }))
            }
          />
          <label htmlFor={`${id}-intro`} className="pt-1.5 text-soft">
            {say('editions:formIntro')}
          </label>
          <textarea
            id={`${id}-intro`}
            className="input"
            rows={2}
            maxLength={5_000}
            placeholder={editing.draft.intro}
            value={edition.intro ?? ''}
            onChange={({ target: { value } }) =>
              set(({ intro: _, ...before }) => (value === '' ? before : { ...before, intro: value }))
            }
          />
          <label htmlFor={`${id}-opens`} className="pt-1.5 text-soft">
            {say('editions:opens')}
          </label>
          <span>
            <select
              id={`${id}-opens`}
              className="input w-auto"
              value={edition.readOnly ? 'reading' : (edition.opens ?? 'usual')}
              onChange={({ target: { value } }) =>
                set(({ readOnly: _, opens: __, ...before }) => ({
                  ...before,
                  ...(value === 'reading' ? { readOnly: true } : value === 'changing' ? { opens: 'changing' } : {}),
                }))
              }
            >
              {(['usual', 'changing', 'reading'] as const).map((each) => (
                <option key={each} value={each}>
                  {say(`editions:opens.${each}`)}
                </option>
              ))}
            </select>
            <span className="mt-1 block text-[13px] text-soft">{say('editions:opensHint')}</span>
          </span>
        </>
      )}
      <span />
      <span>
        <Button onClick={close}>{say('editions:done')}</Button>
      </span>
    </div>
  );
}

/** Where whoever is given an edition asks: here, by another form, or at an address elsewhere. */
function LeadsTo({
  id,
  edition,
  set,
}: {
  id: string;
  edition: Edition;
  set: (next: (before: Edition) => Edition) => void;
}) {
  const { form } = useBinder();
  const { data } = workshopApi.useFormsQuery();
  const { elsewhere } = edition;
  const kind = elsewhere ? ('form' in elsewhere ? 'form' : 'address') : 'here';
  const others = (data?.forms ?? []).filter(({ key }) => key !== form.key);
  const lead = (to: Elsewhere | undefined): void =>
    set(({ elsewhere: _, ...before }) => (to ? { ...before, elsewhere: to } : before));
  return (
    <>
      <label htmlFor={`${id}-leads`} className="pt-1.5 text-soft">
        {say('editions:leadsTo')}
      </label>
      <span className="flex flex-wrap items-start gap-2">
        <select
          id={`${id}-leads`}
          className="input w-auto"
          value={kind}
          onChange={({ target: { value } }) => {
            if (value === 'here') lead(undefined);
            else lead(value === 'form' ? { form: others[0]?.key ?? '' } : { address: 'https://' });
          }}
        >
          {(['here', 'form', 'address'] as const).map((each) => (
            <option key={each} value={each}>
              {say(`editions:leads.${each}`)}
            </option>
          ))}
        </select>
        {elsewhere && 'form' in elsewhere ? (
          <select
            className="input w-auto"
            aria-label={say('editions:whichForm')}
            value={elsewhere.form}
            onChange={({ target: { value } }) => lead({ form: value })}
          >
            {others.some(({ key }) => key === elsewhere.form) ? null : <option value={elsewhere.form}>?</option>}
            {others.map(({ key, title }) => (
              <option key={key} value={key}>
                {title}
              </option>
            ))}
          </select>
        ) : null}
        {elsewhere && 'address' in elsewhere ? (
          <input
            className="input w-80"
            aria-label={say('editions:whichAddress')}
            maxLength={2_000}
            value={elsewhere.address}
            onChange={({ target: { value } }) => lead({ address: value })}
          />
        ) : null}
        {elsewhere ? <span className="block w-full text-[13px] text-soft">{say('editions:leadsHint')}</span> : null}
      </span>
    </>
  );
}

/** What an edition has otherwise, each to be opened and taken back, and ways to add to it. */
function Differences({ edition, set }: { edition: Edition; set: (next: (before: Edition) => Edition) => void }) {
  const [open, setOpen] = useState<string | null>(null);
  const { draft, proof } = useBinder().editing;
  const form = withOwnParts(draft, edition);
  const only = edition.differences.find((each) => each.does === 'only');
  const asked = new Set(allQuestionsOf({ parts: form.parts }).map(({ field }) => field));
  const parts = new Set(form.parts.map(partKey));
  const unasked = draft.fields.filter(({ key, source }) => source === 'asked' && !asked.has(key));
  const others = draft.fields.filter(({ key, source }) => source !== 'asked' && !parts.has(key));
  const last = form.parts.at(-1);
  const after = last ? partKey(last) : null;
  const add = (what: string): void => {
    if (what === 'words') {
      const { edition: next, key } = addWords(edition, draft, after);
      set(() => next);
      setOpen(key);
    } else if (what === 'only') set((before) => withOnly(before, [...asked]));
    else if (what.startsWith('ask ')) {
      set((before) => addQuestionOf(before, what.slice(4), after));
      setOpen(what.slice(4));
    } else setOpen(what);
  };
  const isListed = edition.differences.some((each) => aboutPart(each) === open);
  return (
    <div>
      <ul>
        {edition.differences.map((difference) => {
          const key = differenceKey(difference);
          const about = aboutPart(difference);
          const words = told(differenceInWords(difference, form, proof.scope));
          // One editor for all that differs about a part, at the first of it.
          const isFirst = edition.differences.find((each) => aboutPart(each) === about) === difference;
          return (
            <li key={key} className="border-l-2 border-rule-strong py-0.5 pl-3">
              <span className="flex items-baseline gap-3">
                {about === null ? (
                  <span className="min-w-0 flex-1">{words}</span>
                ) : (
                  <button
                    type="button"
                    className="min-h-6 min-w-0 flex-1 text-left hover:text-green hover:underline"
                    aria-expanded={open === about}
                    onClick={() => setOpen(open === about ? null : about)}
                  >
                    {words}
                  </button>
                )}
                <button
                  type="button"
                  className="size-6 shrink-0 text-soft hover:text-brick"
                  aria-label={say('editions:takeBack', { what: words })}
                  onClick={() => set((before) => withoutDifference(before, key))}
                >
                  ×
                </button>
              </span>
              {difference.does === 'only' ? (
                <span className="mt-1 mb-2 block">
                  <Boxes
                    all={[...asked]
                      .map((field) => ({ key: field, label: partName(form, field) }))
                      .concat(others.map((field) => ({ key: field.key, label: field.label })))}
                    chosen={difference.shows}
                    toggle={(field) => set((before) => withOnly(before, toggled(difference.shows, field)))}
                  />
                </span>
              ) : null}
              {isFirst && about !== null && open === about ? (
                <PartEditor {...{ edition, about, set }} close={() => setOpen(null)} />
              ) : null}
            </li>
          );
        })}
      </ul>
      {open !== null && !isListed ? (
        <PartEditor {...{ edition, set }} about={open} close={() => setOpen(null)} />
      ) : null}
      <select
        className="input mt-1 w-auto"
        aria-label={say('editions:addDifference')}
        value=""
        onChange={(event) => {
          if (event.target.value !== '') add(event.target.value);
        }}
      >
        <option value="">{say('editions:addDifference')}</option>
        <optgroup label={say('editions:onForm')}>
          {form.parts.map((part) => (
            <option key={partKey(part)} value={partKey(part)}>
              {partName(form, partKey(part))}
            </option>
          ))}
        </optgroup>
        {others.length > 0 ? (
          <optgroup label={say('editions:notAsked')}>
            {others.map((field) => (
              <option key={field.key} value={field.key}>
                {field.label}
              </option>
            ))}
          </optgroup>
        ) : null}
        <optgroup label={say('editions:ofItsOwn')}>
          <option value="words">{say('editions:sayMore')}</option>
          {unasked.map((field) => (
            <option key={field.key} value={`ask ${field.key}`}>
              {say('editions:askMore', { label: field.label })}
            </option>
          ))}
        </optgroup>
        {only ? null : <option value="only">{say('editions:onlySome')}</option>}
      </select>
    </div>
  );
}
