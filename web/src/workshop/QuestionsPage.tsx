import { closestCenter, DndContext, type DragEndEvent, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import type { FormDesign } from '@tolvek/core/form';
import type { KindName } from '@tolvek/core/register';
import { useState } from 'react';
import { Button } from '../ui/Button.tsx';
import { addQuestion, KIND_NAMES, moveQuestion } from './edits.ts';
import { QuestionRow } from './QuestionRow.tsx';

type Change = (edit: (draft: FormDesign) => FormDesign) => void;

/** What is asked, in which words and order; the desk-only fields below. */
export function QuestionsPage({ draft, change, released }: { draft: FormDesign; change: Change; released: boolean }) {
  const [open, setOpen] = useState<string | null>(null);
  const [adding, setAdding] = useState(false);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }), useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }));
  const deskOnly = draft.fields.filter((field) => field.source === 'desk-only');
  const unasked = draft.fields.filter((field) => field.source === 'asked' && !draft.questions.some((question) => question.field === field.key));
  const drop = ({ active, over }: DragEndEvent): void => {
    const to = draft.questions.findIndex((question) => question.field === over?.id);
    if (to >= 0) change((before) => moveQuestion(before, String(active.id), to));
  };
  const add = (kind: KindName): void => {
    let made = '';
    change((before) => {
      const { design, key } = addQuestion(before, kind);
      made = key;
      return design;
    });
    setAdding(false);
    queueMicrotask(() => setOpen(made));
  };
  return (
    <>
      <div className="grid grid-cols-[112px_1fr] items-start gap-x-3 gap-y-2 border-b border-rule pb-4 text-soft" id="at-title">
        <label htmlFor="form-title" className="pt-1.5">
          Title
        </label>
        <input id="form-title" className="input" value={draft.title} onChange={(event) => change((before) => ({ ...before, title: event.target.value }))} />
        <label htmlFor="form-intro" className="pt-1.5">
          Introduction
        </label>
        <textarea id="form-intro" rows={2} className="input" value={draft.intro} onChange={(event) => change((before) => ({ ...before, intro: event.target.value }))} />
        <label htmlFor="form-subject" className="pt-1.5">
          In lists
        </label>
        <div id="at-subject">
          <input
            id="form-subject"
            className="input font-mono text-[13px]"
            value={draft.subject}
            onChange={(event) => change((before) => ({ ...before, subject: event.target.value }))}
          />
          <p className="mt-1 text-[12.5px]">
            What a request is called in lists; fields in braces:{' '}
            {draft.fields
              .slice(0, 4)
              .map((field) => `{${field.key}}`)
              .join(' ')}
          </p>
        </div>
      </div>
      <div className="mt-4 flex items-baseline justify-between">
        <span className="text-soft">
          {draft.questions.length} asked, {deskOnly.length} desk-only
        </span>
        <Button aria-expanded={adding} onClick={() => setAdding(!adding)}>
          Add question
        </Button>
      </div>
      {adding ? (
        <div className="mt-2 flex flex-wrap gap-2 bg-green-wash p-3">
          <span className="w-full text-soft">Which kind of answer?</span>
          {KIND_NAMES.map(({ kind, label }) => (
            <Button key={kind} onClick={() => add(kind)}>
              {label}
            </Button>
          ))}
        </div>
      ) : null}
      <h2 className="section-head mt-4">Asked</h2>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
        <SortableContext items={draft.questions.map((question) => question.field)} strategy={verticalListSortingStrategy}>
          <ol>
            {draft.questions.map((question, index) => (
              <QuestionRow
                key={question.field}
                draft={draft}
                question={question}
                index={index}
                open={open === question.field}
                toggle={() => setOpen(open === question.field ? null : question.field)}
                change={change}
                released={released}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      {draft.questions.length === 0 ? <p className="py-4 text-soft">This form asks nothing yet. Begin with “Add question”.</p> : null}
      {deskOnly.length > 0 ? <h2 className="section-head mt-6">Desk-only</h2> : null}
      {deskOnly.map((field) => (
        <div key={field.key} className="grid grid-cols-[30px_1fr_118px] items-baseline border-b border-rule py-2">
          <span />
          <span className="text-[15.5px]">
            {field.label}
            <small className="block text-[12.5px] text-soft">Filled in by the desk, never on the form</small>
          </span>
          <span className="text-soft">{KIND_NAMES.find((each) => each.kind === field.type.kind)?.label.toLowerCase()}</span>
        </div>
      ))}
      {unasked.length > 0 ? (
        <>
          <h2 className="section-head mt-6">No longer asked</h2>
          {unasked.map((field) => (
            <div key={field.key} className="flex items-baseline justify-between border-b border-rule py-2">
              <span>
                {field.label} <span className="text-soft">· what was answered stays in the register</span>
              </span>
              <Button onClick={() => change((before) => ({ ...before, questions: [...before.questions, { field: field.key, asks: '', help: '', required: false }] }))}>
                Ask again
              </Button>
            </div>
          ))}
        </>
      ) : null}
    </>
  );
}
