import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { type FormRule, partKey, questionsOf } from '@tolvek/core/form';
import { type CarriedField, type Kind, type KindName, namesAround, sayValue } from '@tolvek/core/register';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Button } from '../ui/Button.tsx';
import { say, told } from '../wire/words.ts';
import { useBinder } from './binder.ts';
import type { Editing } from './editing.ts';
import {
  addField,
  addPart,
  addQuestion,
  canBeComputed,
  dropParts,
  editField,
  freshType,
  keyedByLabel,
  kindLabel,
  movePart,
  moveTogether,
  QUESTION_KINDS,
  requireAll,
  withTopic,
} from './edits.ts';
import { workshopApi } from './endpoints.ts';
import { FieldRow, PartRow } from './PartRow.tsx';
import { Reaches } from './Reaches.tsx';
import { SubjectEditor } from './SubjectEditor.tsx';
import { UniqueRules } from './UniqueRules.tsx';
import { UpdatesEditor } from './UpdatesEditor.tsx';

// The same objects at each drawing: others would have every line drawn again.
const BY_POINTER = { activationConstraint: { distance: 4 } };
const BY_KEYS = { coordinateGetter: sortableKeyboardCoordinates };

/** What is asked, in which words and order; below it the fields no form asks. */
export function QuestionsPage() {
  const { editing } = useBinder();
  const { draft, change } = editing;
  const [open, setOpen] = useState<string | null>(null);
  const latest = useRef(draft);
  latest.current = draft;
  // A field that was just added is known by its label from when its line is left.
  const { released } = editing;
  useEffect(
    () => () => {
      if (open !== null && keyedByLabel(latest.current, open, released))
        change((before) => keyedByLabel(before, open, released)?.design ?? before);
    },
    [open, change, released],
  );
  const [adding, setAdding] = useState(false);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const sensors = useSensors(useSensor(PointerSensor, BY_POINTER), useSensor(KeyboardSensor, BY_KEYS));
  const numbers = new Map(questionsOf(draft.parts).map((question, index) => [question.field, index + 1]));
  const deskOnly = draft.fields.filter((field) => field.source === 'desk-only');
  const computed = draft.fields.filter((field) => field.source === 'computed');
  const given = draft.fields.filter((field) => field.source === 'given');
  const carried = draft.fields.filter((field) => field.source === 'carried');
  const unasked = draft.fields.filter((field) => field.source === 'asked' && !numbers.has(field.key));
  const drop = ({ active, over }: DragEndEvent): void => {
    const to = draft.parts.findIndex((part) => partKey(part) === over?.id);
    if (to >= 0) change((before) => movePart(before, String(active.id), to));
  };
  const added = (make: (before: typeof draft) => { design: typeof draft; key: string }): void => {
    let made = '';
    change((before) => {
      const { design, key } = make(before);
      made = key;
      return design;
    });
    setAdding(false);
    queueMicrotask(() => setOpen(made));
  };
  const toggle = useCallback((key: string): void => setOpen((before) => (before === key ? null : key)), []);
  const pick = useCallback(
    (key: string): void =>
      setPicked((before) =>
        before.has(key) ? new Set([...before].filter((each) => each !== key)) : new Set([...before, key]),
      ),
    [],
  );
  const order = draft.parts.map(partKey).join(' ');
  const items = useMemo(() => order.split(' ').filter(Boolean), [order]);
  const fields = useMemo(() => new Map(draft.fields.map((field) => [field.key, field])), [draft.fields]);
  const inRules = useMemo(() => rulesNaming(draft.rules), [draft.rules]);
  return (
    <>
      <FormHead editing={editing} />
      <div className="mt-4 flex flex-wrap items-baseline gap-2">
        <span className="mr-auto text-soft">
          {say('workshop:questionCount', { asked: numbers.size, staff: deskOnly.length, computed: computed.length })}
        </span>
        <Button aria-expanded={adding} onClick={() => setAdding(!adding)}>
          {say('workshop:addQuestion')}
        </Button>
        <Button onClick={() => added((before) => addPart(before, 'section', open))}>
          {say('workshop:part.section')}
        </Button>
        <Button onClick={() => added((before) => addPart(before, 'page', open))}>{say('workshop:part.page')}</Button>
        <Button onClick={() => added((before) => addPart(before, 'instruction', open))}>
          {say('workshop:addText')}
        </Button>
      </div>
      {adding ? (
        <div className="mt-2 bg-green-wash p-3">
          <p className="mb-2 text-soft">{say(open ? 'workshop:whichKindAfter' : 'workshop:whichKindEnd')}</p>
          <div className="grid grid-cols-2 gap-x-3 gap-y-1 2xl:grid-cols-3">
            {QUESTION_KINDS.map((kind) => (
              <button
                key={kind}
                type="button"
                aria-label={`${kindLabel(kind)}: ${say(`kindHints:${kind}`)}`}
                className="rounded-md border border-edge bg-sheet px-3 py-1 text-left"
                onClick={() => added((before) => addQuestion(before, kind, open))}
              >
                <b className="font-semibold">{kindLabel(kind)}</b>{' '}
                <span className="text-[12.5px] text-soft">{say(`kindHints:${kind}`)}</span>
              </button>
            ))}
          </div>
        </div>
      ) : null}
      <h2 className="section-head mt-4">{say('workshop:onForm')}</h2>
      {picked.size > 0 ? <Together editing={editing} picked={picked} done={() => setPicked(new Set())} /> : null}
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
        <SortableContext items={items} strategy={verticalListSortingStrategy}>
          <ol>
            {draft.parts.map((part, index) => {
              const key = partKey(part);
              return (
                <PartRow
                  key={key}
                  part={part}
                  field={fields.get(key)}
                  index={index}
                  isLast={index === draft.parts.length - 1}
                  number={numbers.get(key) ?? null}
                  inRules={inRules(key)}
                  editing={open === key ? editing : null}
                  toggle={toggle}
                  picked={picked.has(key)}
                  pick={pick}
                />
              );
            })}
          </ol>
        </SortableContext>
      </DndContext>
      {draft.parts.length === 0 ? <p className="py-4 text-soft">{say('workshop:noQuestionsYet')}</p> : null}
      <div className="section-head mt-6 flex items-end justify-between">
        <h2 className="font-sans text-[12px] font-semibold">{say('workshop:computedFields')}</h2>
        <button
          type="button"
          className="text-green underline"
          onClick={() => added((before) => addField(before, 'computed'))}
        >
          {say('workshop:addComputed')}
        </button>
      </div>
      {computed.length === 0 ? <p className="py-2 text-soft">{say('workshop:computedHint')}</p> : null}
      {computed.map((field) => (
        <FieldRow
          key={field.key}
          field={field}
          editing={editing}
          open={open === field.key}
          toggle={() => toggle(field.key)}
        >
          <label htmlFor={`kind-${field.key}`}>{say('workshop:kind')}</label>
          <select
            id={`kind-${field.key}`}
            className="input w-auto justify-self-start"
            value={field.type.kind}
            onChange={(event) =>
              change((before) =>
                editField(before, field.key, (each) => ({
                  ...each,
                  type: freshType(event.target.value as KindName) as Kind,
                })),
              )
            }
          >
            {QUESTION_KINDS.filter(canBeComputed).map((kind) => (
              <option key={kind} value={kind}>
                {kindLabel(kind)}
              </option>
            ))}
          </select>
        </FieldRow>
      ))}
      <div className="section-head mt-6 flex items-end justify-between">
        <h2 className="font-sans text-[12px] font-semibold">{say('workshop:staffOnlyFields')}</h2>
        <button
          type="button"
          className="text-green underline"
          onClick={() => added((before) => addField(before, 'desk-only'))}
        >
          {say('workshop:addStaffOnly')}
        </button>
      </div>
      {deskOnly.length === 0 ? <p className="py-2 text-soft">{say('workshop:staffOnlyHint')}</p> : null}
      {deskOnly.map((field) => (
        <FieldRow
          key={field.key}
          field={field}
          editing={editing}
          open={open === field.key}
          toggle={() => toggle(field.key)}
        >
          {editing.released.has(field.key) ? null : (
            <>
              <label htmlFor={`kind-${field.key}`}>{say('workshop:kind')}</label>
              <select
                id={`kind-${field.key}`}
                className="input w-auto justify-self-start"
                value={field.type.kind}
                onChange={(event) =>
                  change((before) =>
                    editField(before, field.key, (each) => ({
                      ...each,
                      type: freshType(event.target.value as KindName) as Kind,
                    })),
                  )
                }
              >
                {QUESTION_KINDS.map((kind) => (
                  <option key={kind} value={kind}>
                    {kindLabel(kind)}
                  </option>
                ))}
              </select>
            </>
          )}
        </FieldRow>
      ))}
      <div className="section-head mt-6 flex items-end justify-between">
        <h2 className="font-sans text-[12px] font-semibold">{say('workshop:runningNumbers')}</h2>
        <button
          type="button"
          className="text-green underline"
          onClick={() => added((before) => addField(before, 'given'))}
        >
          {say('workshop:addRunning')}
        </button>
      </div>
      {given.length === 0 ? <p className="py-2 text-soft">{say('workshop:runningHint')}</p> : null}
      {given.map((field) => (
        <FieldRow
          key={field.key}
          field={field}
          editing={editing}
          open={open === field.key}
          toggle={() => toggle(field.key)}
        />
      ))}
      {carried.length > 0 ? (
        <>
          <h2 className="section-head mt-6">{say('workshop:carriedFields')}</h2>
          {carried.map((field) => (
            <CarriedLine key={field.key} field={field} editing={editing} goTo={setOpen} />
          ))}
        </>
      ) : null}
      {unasked.length > 0 ? (
        <>
          <h2 className="section-head mt-6">{say('workshop:notOnThisForm')}</h2>
          {unasked.map((field) => (
            <div
              key={field.key}
              id={`at-${field.key}`}
              className="flex items-baseline justify-between border-b border-rule py-2"
            >
              <span>
                {field.label} <span className="text-soft">{say('workshop:answersStay')}</span>
              </span>
              <Button
                onClick={() =>
                  change((before) => ({
                    ...before,
                    parts: [
                      ...before.parts,
                      { part: 'question', field: field.key, asks: '', help: '', required: false },
                    ],
                  }))
                }
              >
                {say('workshop:addToForm')}
              </Button>
            </div>
          ))}
        </>
      ) : null}
      <UniqueRules editing={editing} />
      <UpdatesEditor editing={editing} />
    </>
  );
}

/** How many rules name a part, in their condition or in what they do. */
function rulesNaming(rules: readonly FormRule[]): (key: string) => number {
  const texts = rules.map((rule) => `${rule.when} ${JSON.stringify([...rule.then, ...rule.otherwise])}`);
  const known = new Map<string, number>();
  return (key) => {
    const found = known.get(key) ?? texts.filter((text) => new RegExp(`(?<![\\w-])${key}(?![\\w-])`).test(text)).length;
    known.set(key, found);
    return found;
  };
}

/** A value that comes along with a choice; it is edited where the choice is. */
function CarriedLine({
  field,
  editing: { draft, proof },
  goTo,
}: {
  field: CarriedField;
  editing: Editing;
  goTo: (key: string) => void;
}) {
  const pointer = draft.fields.find((each) => each.key === field.reference);
  const value = proof.completion.values[field.key];
  return (
    <div
      id={`at-${field.key}`}
      className="grid grid-cols-[68px_minmax(0,1fr)_auto] items-baseline gap-x-2 border-b border-rule py-2"
    >
      <span />
      <span className="text-[15.5px]">
        {field.label}{' '}
        <span className="text-[13px] text-soft">
          {say(field.live ? 'workshop:carriedLive' : 'workshop:carriedFrozen')},{' '}
          <button type="button" className="text-green underline" onClick={() => goTo(field.reference)}>
            {pointer?.label ?? say('workshop:lostReference')}
          </button>
        </span>
      </span>
      <span className="text-soft">
        {value === undefined ? '' : told(sayValue(field, value, namesAround(proof.facts)))}
      </span>
    </div>
  );
}

/** The form’s title, introduction, and what its requests are called. */
function FormHead({ editing: { draft, change, others } }: { editing: Editing }) {
  const { data } = workshopApi.useFormsQuery();
  return (
    <div
      className="grid grid-cols-[minmax(92px,max-content)_1fr] items-start gap-x-3 gap-y-2 border-b border-rule pb-4 text-soft"
      id="at-title"
    >
      <label htmlFor="form-title" className="pt-1.5">
        {say('workshop:title')}
      </label>
      <input
        id="form-title"
        className="input"
        value={draft.title}
        onChange={(event) => change((before) => ({ ...before, title: event.target.value }))}
      />
      <label htmlFor="form-intro" className="pt-1.5">
        {say('workshop:introduction')}
      </label>
      <textarea
        id="form-intro"
        rows={2}
        className="input"
        value={draft.intro}
        onChange={(event) => change((before) => ({ ...before, intro: event.target.value }))}
      />
      <label htmlFor="form-topic" className="pt-1.5">
        {say('workshop:topic')}
      </label>
      <div>
        <input
          id="form-topic"
          className="input"
          list="form-topics"
          maxLength={200}
          value={draft.topic ?? ''}
          aria-describedby="form-topic-hint"
          onChange={(event) => change((before) => withTopic(before, event.target.value))}
        />
        <datalist id="form-topics">
          {[...new Set(data?.forms.map(({ topic }) => topic).filter(Boolean))].map((topic) => (
            <option key={topic} value={topic} />
          ))}
        </datalist>
        <p id="form-topic-hint" className="mt-1 text-[12.5px]">
          {say('workshop:topicHint')}
        </p>
      </div>
      <span className="pt-1.5">{say('workshop:nameInLists')}</span>
      <div id="at-subject">
        <SubjectEditor
          subject={draft.subject}
          fields={draft.fields}
          change={(subject) => change((before) => ({ ...before, subject }))}
        />
        <p className="mt-1 text-[12.5px]">
          {say('workshop:nameInListsHint')} <Reaches others={others} />
        </p>
      </div>
    </div>
  );
}

/** What can be done with several parts at once. */
function Together({
  editing: { change, released },
  picked,
  done,
}: {
  editing: Editing;
  picked: ReadonlySet<string>;
  done: () => void;
}) {
  return (
    <div
      className="sticky top-0 z-10 flex flex-wrap items-center gap-2 border-b border-green bg-green-wash px-3 py-2"
      role="toolbar"
      aria-label={say('workshop:withSelected')}
    >
      <span className="mr-auto">{say('workshop:selected', { n: picked.size })}</span>
      <Button onClick={() => change((before) => requireAll(before, picked, true))}>
        {say('workshop:requiredWord')}
      </Button>
      <Button onClick={() => change((before) => requireAll(before, picked, false))}>
        {say('workshop:notRequired')}
      </Button>
      <Button onClick={() => change((before) => moveTogether(before, picked, -1))}>{say('workshop:up')}</Button>
      <Button onClick={() => change((before) => moveTogether(before, picked, 1))}>{say('workshop:down')}</Button>
      <Button
        look="refuse"
        onClick={() => {
          change((before) => dropParts(before, picked, released));
          done();
        }}
      >
        {say('workshop:remove')}
      </Button>
      <button type="button" className="text-green underline" onClick={done}>
        {say('workshop:selectNone')}
      </button>
    </div>
  );
}
