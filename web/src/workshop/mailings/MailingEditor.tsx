import { readerScope } from '@tolvek/core/access';
import { isSame, translated } from '@tolvek/core/design';
import { ITSELF, MAILING, type MailingDesign, mailingInWords } from '@tolvek/core/mailing';
import { useId, useState } from 'react';
import { Boxes } from '../../ui/Boxes.tsx';
import { Button } from '../../ui/Button.tsx';
import { ProblemsAt } from '../../ui/ProblemsAt.tsx';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { say, told } from '../../wire/words.ts';
import { AudienceFields } from '../access/AudienceFields.tsx';
import { toggled } from '../access/planEdits.ts';
import { useBinder } from '../binder.ts';
import { workshopApi } from '../endpoints.ts';
import { WhatWasSet } from '../groundwork/States.tsx';
import { InOthers } from '../languages/InOthers.tsx';
import { OptionalCondition } from '../OptionalCondition.tsx';
import { PutInForce } from '../PutInForce.tsx';
import { Hint, Tick } from '../Setting.tsx';
import {
  changeReminder,
  dueIn,
  goesWhen,
  isAbout,
  peopleFields,
  personQuestions,
  registerOf,
  requestQuestions,
  withoutReminder,
  withReminder,
  withSet,
} from './mailingEdits.ts';
import type { MailingView } from './mailingView.ts';
import { Reach } from './Reach.tsx';

interface MailingEditorProps {
  /** The mailing as it is in force; null for one that is added. */
  readonly of: MailingView | null;
  readonly mailing: MailingDesign;
  readonly save: (mailing: MailingDesign, note: string) => Promise<void>;
  /** How far saving is, and what the server found. */
  readonly adding: { readonly isLoading: boolean; readonly error?: unknown; readonly reset: () => void };
  readonly close: () => void;
}

const PERIODS = ['week', 'month', 'year'] as const;
const WHENS = ['by-hand', 'every', 'reached'] as const;

/** All that is set of a mailing: to whom it goes, about what, when, by when; whom that reaches now stands beside it. */
export function MailingEditor({ of, mailing: begun, save, adding, close }: MailingEditorProps) {
  const id = useId();
  const { form, editing } = useBinder();
  const { data: ground } = workshopApi.useGroundQuery();
  const [mailing, setMailing] = useState(begun);
  const [note, setNote] = useState('');
  /** What people are called who were chosen just now. */
  const [chosen, setChosen] = useState<Readonly<Record<string, string>>>({});
  const { error, isLoading, reset } = adding;
  const set = (change: (before: MailingDesign) => MailingDesign): void => {
    reset();
    setMailing(change);
  };
  const { about, to, when } = mailing;
  const [people, references] = [personQuestions(editing.draft), requestQuestions(editing.draft)];
  const register = about.is === 'requests' ? form.registers.find(({ key }) => key === about.register) : undefined;
  const scope = readerScope(register?.fields ?? [], { stages: register?.stages ?? [] });
  const found = MAILING.findings(mailing, null);
  const groups = ground?.groups ?? form.groups;
  const names = {
    word: (word: string) =>
      word.startsWith('@')
        ? (chosen[word.slice(1)] ??
          of?.people[word.slice(1)] ??
          form.people.find(({ key }) => key === word.slice(1))?.label ??
          '…')
        : (groups.find(({ key }) => key === word)?.name ?? word),
    register: (key: string) => form.registers.find((each) => each.key === key)?.name ?? key,
    field: (key: string) => register?.fields.find((each) => each.key === key)?.label ?? key,
    stage: (key: string) => register?.stages.find((each) => each.key === key)?.label ?? key,
  };
  const named = Object.fromEntries(form.people.map(({ key, label }) => [key, label]));
  const aboutBy = (chosen: string): MailingDesign['about'] => {
    if (chosen === '') return { is: 'nothing' };
    const field = references.find(({ key }) => key === chosen);
    const its = chosen === ITSELF ? form.register : registerOf(field, form.registers);
    if (!its) return { is: 'each-other', field: chosen };
    return { is: 'requests', register: its.key, field: chosen, stages: [], when: '' };
  };
  return (
    <div className="mt-4 border-l-2 border-green pl-4">
      <div className="grid grid-cols-[9rem_1fr] items-start gap-x-4 gap-y-3 [&_input]:scroll-mb-44 [&_select]:scroll-mb-44 [&_textarea]:scroll-mb-44">
        <label htmlFor={`${id}-name`} className="pt-1.5 text-soft">
          {say('workshop:doors.name')}
        </label>
        <span>
          <input
            id={`${id}-name`}
            className="input"
            maxLength={200}
            value={mailing.name}
            onChange={({ target: { value } }) => set((before) => ({ ...before, name: value }))}
          />
          <ProblemsAt error={error} field="name" />
        </span>
        <label htmlFor={`${id}-about`} className="pt-1.5 text-soft">
          {say('mailings:about')}
        </label>
        <span>
          <select
            id={`${id}-about`}
            className="input w-auto max-w-full"
            value={about.is === 'nothing' ? '' : about.field}
            onChange={({ target: { value } }) => set((before) => isAbout(before, aboutBy(value)))}
          >
            <option value="">{say('mailings:aboutNothing')}</option>
            {editing.draft.updates ? (
              <option value={ITSELF}>{say('mailings:aboutItself', { register: form.register.name })}</option>
            ) : null}
            {references.map((field) => (
              <option key={field.key} value={field.key}>
                {say('mailings:aboutRequests', {
                  register: registerOf(field, form.registers)?.name ?? '',
                  question: field.label,
                })}
              </option>
            ))}
            {people.map(({ key, label }) => (
              <option key={key} value={key}>
                {say('mailings:aboutEachOther', { question: label })}
              </option>
            ))}
          </select>
          {about.is === 'nothing' ? null : <Hint>{say('mailings:aboutHint')}</Hint>}
          <ProblemsAt error={error} field="field" />
          <ProblemsAt error={error} field="about" />
        </span>
        {about.is === 'requests' && register ? (
          <>
            <span className="pt-1 text-soft">{say('mailings:which')}</span>
            <fieldset>
              <legend className="sr-only">{say('mailings:which')}</legend>
              <Boxes
                all={register.stages.map(({ key, label }) => ({ key, label }))}
                chosen={about.stages}
                toggle={(key) =>
                  set((before) =>
                    before.about.is === 'requests'
                      ? { ...before, about: { ...before.about, stages: toggled(before.about.stages, key) } }
                      : before,
                  )
                }
              />
              <Hint>{say(when.is === 'reached' ? 'mailings:stagesReached' : 'mailings:stagesAt')}</Hint>
              <ProblemsAt error={error} field="stages" />
              <div className="mt-1">
                <OptionalCondition
                  condition={about.when}
                  scope={scope}
                  set={(next) => set((before) => ({ ...before, about: { ...about, when: next } }))}
                />
              </div>
              <ProblemsAt error={error} field="condition" />
            </fieldset>
            <label htmlFor={`${id}-to`} className="pt-1.5 text-soft">
              {say('mailings:to')}
            </label>
            <span>
              <select
                id={`${id}-to`}
                className="input w-auto"
                value={'named' in to ? to.named : ''}
                onChange={({ target: { value } }) =>
                  set((before) => ({
                    ...before,
                    to: value === '' ? { audience: { in: { anyOf: [] }, outOf: [] } } : { named: value },
                  }))
                }
              >
                <option value="~requester">{say('mailings:itsRequester')}</option>
                <option value="~handler">{say('mailings:itsHandler')}</option>
                {peopleFields(register).map(({ key, label }) => (
                  <option key={key} value={key}>
                    {say('mailings:namedIn', { field: label })}
                  </option>
                ))}
                <option value="">{say('mailings:whoChosen')}</option>
              </select>
              <ProblemsAt error={error} field="to" />
            </span>
          </>
        ) : null}
        {'audience' in to ? (
          <AudienceFields
            {...{ id, groups }}
            audience={to.audience}
            people={{ ...named, ...of?.people }}
            profile={undefined}
            onlyWho
            named={(who, name) => setChosen((before) => ({ ...before, [who]: name }))}
            found={error}
            field="to"
            change={(next) =>
              set((before) =>
                'audience' in before.to ? { ...before, to: { audience: next(before.to.audience) } } : before,
              )
            }
          />
        ) : null}
        <label htmlFor={`${id}-when`} className="pt-1.5 text-soft">
          {say('mailings:when')}
        </label>
        <span className="flex flex-wrap items-center gap-2">
          <select
            id={`${id}-when`}
            className="input w-auto"
            value={when.is === 'every' ? when.period : when.is}
            onChange={({ target: { value } }) => {
              const period = PERIODS.find((each) => each === value);
              set((before) =>
                goesWhen(
                  before,
                  period
                    ? { is: 'every', period }
                    : value === 'reached'
                      ? { is: 'reached', days: 1 }
                      : { is: 'by-hand' },
                ),
              );
            }}
          >
            {WHENS.map((each) =>
              each === 'every' ? (
                PERIODS.map((period) => (
                  <option key={period} value={period}>
                    {say(`mailings:when.${period}`)}
                  </option>
                ))
              ) : each === 'reached' && about.is !== 'requests' ? null : (
                <option key={each} value={each}>
                  {say(`mailings:when.${each}`)}
                </option>
              ),
            )}
          </select>
          {when.is === 'reached' ? (
            <Days
              label={say('mailings:daysAfter')}
              value={when.days}
              most={3_660}
              put={(days) => set((before) => ({ ...before, when: { is: 'reached', days } }))}
            />
          ) : null}
          <ProblemsAt error={error} field="when" />
        </span>
        <label htmlFor={`${id}-due`} className="pt-1.5 text-soft">
          {say('mailings:due')}
        </label>
        <span className="flex flex-wrap items-center gap-2">
          <select
            id={`${id}-due`}
            className="input w-auto"
            value={mailing.dueIn === null ? 'none' : 'days'}
            onChange={({ target: { value } }) => set((before) => dueIn(before, value === 'none' ? null : 5))}
          >
            <option value="days">{say('mailings:dueDays')}</option>
            <option value="none">{say(when.is === 'every' ? 'mailings:duePeriod' : 'mailings:dueNone')}</option>
          </select>
          {mailing.dueIn === null ? null : (
            <Days
              label={say('mailings:workingDays')}
              value={mailing.dueIn}
              most={400}
              put={(days) => set((before) => dueIn(before, days))}
            />
          )}
        </span>
        {mailing.dueIn === null && when.is !== 'every' ? null : (
          <>
            <span className="pt-1.5 text-soft">{say('mailings:reminders')}</span>
            <fieldset>
              <legend className="sr-only">{say('mailings:reminders')}</legend>
              {mailing.reminders.map((reminder, place) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a reminder is told apart by its place alone
                <p key={place} className="mb-1.5 flex flex-wrap items-center gap-2">
                  <Days
                    label={say('mailings:reminderDays', { number: place + 1 })}
                    value={reminder.days}
                    most={365}
                    put={(days) => set((before) => changeReminder(before, place, { days }))}
                  />
                  <select
                    aria-label={say('mailings:reminderSide', { number: place + 1 })}
                    className="input w-auto"
                    value={reminder.side}
                    onChange={({ target: { value } }) =>
                      set((before) => changeReminder(before, place, { side: value === 'after' ? 'after' : 'before' }))
                    }
                  >
                    <option value="before">{say('mailings:before')}</option>
                    <option value="after">{say('mailings:after')}</option>
                  </select>
                  <button
                    type="button"
                    className="text-brick underline"
                    aria-label={say('mailings:dropReminder', { number: place + 1 })}
                    onClick={() => set((before) => withoutReminder(before, place))}
                  >
                    {say('mailings:drop')}
                  </button>
                </p>
              ))}
              <button type="button" className="text-green underline" onClick={() => set(withReminder)}>
                {say('mailings:addReminder')}
              </button>
              <ProblemsAt error={error} field="reminders" />
            </fieldset>
          </>
        )}
        <label htmlFor={`${id}-text`} className="pt-1.5 text-soft">
          {say('mailings:text')}
        </label>
        <span>
          <textarea
            id={`${id}-text`}
            rows={2}
            maxLength={2_000}
            className="input"
            value={mailing.text}
            onChange={({ target: { value } }) => set((before) => ({ ...before, text: value }))}
          />
          <Hint>{say('mailings:textHint')}</Hint>
          <InOthers
            texts={mailing.text.trim() === '' ? [] : [{ place: 'text', text: mailing.text, kind: 'words' }]}
            found={(_, language) => mailing.translations?.[language]?.text}
            put={(text, language, says) =>
              set((before) => ({ ...before, translations: translated(before.translations, language, text, says) }))
            }
          />
        </span>
        <label htmlFor={`${id}-door`} className="pt-1.5 text-soft">
          {say('mailings:door')}
        </label>
        <span>
          <select
            id={`${id}-door`}
            className="input w-auto max-w-full"
            value={mailing.door}
            onChange={({ target: { value } }) => set((before) => ({ ...before, door: value }))}
          >
            {form.doors.some(({ slug }) => slug === mailing.door) ? null : <option value={mailing.door}>–</option>}
            {form.doors.map(({ slug, name }) => (
              <option key={slug} value={slug}>
                {name}
              </option>
            ))}
          </select>
          <Hint>{say('mailings:doorHint')}</Hint>
          <ProblemsAt error={error} field="door" />
        </span>
        {about.is === 'requests' ? (
          <>
            <label htmlFor={`${id}-counts`} className="pt-1.5 text-soft">
              {say('mailings:counts')}
            </label>
            <span>
              <select
                id={`${id}-counts`}
                className="input w-auto"
                value={mailing.counts ?? ''}
                onChange={({ target: { value } }) =>
                  set((before) => withSet(before, 'counts', value === 'latest' || value === 'mean' ? value : undefined))
                }
              >
                <option value="">{say('mailings:counts.all')}</option>
                <option value="latest">{say('mailings:counts.latest')}</option>
                <option value="mean">{say('mailings:counts.mean')}</option>
              </select>
            </span>
          </>
        ) : null}
        <span />
        <Tick
          label={say('mailings:passesOn')}
          hint={say('mailings:passesOnHint')}
          isOn={mailing.passesOn ?? false}
          put={(isOn) => set((before) => withSet(before, 'passesOn', isOn || undefined))}
        />
        {when.is === 'by-hand' ? null : (
          <>
            <span />
            <Tick
              label={say('mailings:going')}
              hint={say('mailings:goingHint')}
              isOn={mailing.going}
              put={(going) => set((before) => ({ ...before, going }))}
            />
          </>
        )}
        <span className="text-soft">{say('mailings:now')}</span>
        <Reach form={form.key} mailing={mailing} />
      </div>
      {of === null ? (
        <section
          aria-label={say('ground:notInForce')}
          className="sticky -bottom-10 mt-5 border border-rule-strong bg-sheet px-4 py-3 shadow-lg"
        >
          <p>{mailingInWords(mailing, names).map(told).join(' ')}</p>
          {found.map(({ at, message }) => (
            <p key={at} className="mt-1 text-brick">
              {told(message)}
            </p>
          ))}
          <WholeTrouble error={error} className="mt-2" />
          <p className="mt-3 flex gap-2">
            <Button look="main" disabled={isLoading || found.length > 0} onClick={() => void save(mailing, '')}>
              {say('mailings:addNow')}
            </Button>
            <Button onClick={close}>{say('common:cancel')}</Button>
          </p>
        </section>
      ) : (
        <PutInForce
          changes={isSame(begun, mailing) ? [] : MAILING.compare(begun, mailing)}
          {...{ found, error, note, setNote, isLoading, close }}
          says={
            <>
              {mailingInWords(mailing, names).map(told).join(' ')}{' '}
              <span className="text-soft">{say('mailings:sentStays')}</span>
            </>
          }
          save={() => void save(mailing, note)}
          undo={() => {
            set(() => begun);
            close();
          }}
        />
      )}
      {of && of.states.length > 1 ? <WhatWasSet states={of.states} back={(state) => set(() => state.mailing)} /> : null}
    </div>
  );
}

interface DaysProps {
  readonly label: string;
  readonly value: number;
  readonly most: number;
  readonly put: (days: number) => void;
}

/** A number of days. */
const Days = ({ label, value, most, put }: DaysProps) => (
  <label className="flex items-center gap-2">
    <input
      type="number"
      min={0}
      max={most}
      aria-label={label}
      className="input w-20"
      value={value}
      onChange={({ target: { valueAsNumber } }) => {
        if (Number.isInteger(valueAsNumber)) put(Math.min(most, Math.max(0, valueAsNumber)));
      }}
    />
    <span aria-hidden="true">{say('mailings:days', { count: value })}</span>
  </label>
);
