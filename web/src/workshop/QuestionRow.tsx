import { useSortable } from '@dnd-kit/sortable';
import type { FormDesign, Question } from '@tolvek/core/form';
import type { Field, Kind } from '@tolvek/core/register';
import { ArrowDown, ArrowUp, GripVertical } from 'lucide-react';
import { Button } from '../ui/Button.tsx';
import { dropQuestion, editField, editQuestion, freshKey, KIND_NAMES, moveQuestion } from './edits.ts';

interface QuestionRowProps {
  readonly draft: FormDesign;
  readonly question: Question;
  readonly index: number;
  readonly open: boolean;
  readonly toggle: () => void;
  readonly change: (edit: (draft: FormDesign) => FormDesign) => void;
  readonly released: boolean;
}

/** One question as a ruled line; opened, everything about it is edited in place. */
export function QuestionRow({ draft, question, index, open, toggle, change, released }: QuestionRowProps) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: question.field });
  const field = draft.fields.find((each) => each.key === question.field);
  if (!field) return null;
  const inRules = draft.rules.filter((rule) => rule.show.includes(field.key) || rule.when.includes(field.key)).length;
  return (
    <li
      ref={setNodeRef}
      id={`at-${field.key}`}
      style={{ transform: transform ? `translateY(${transform.y}px)` : undefined, transition }}
      className={open ? '-mx-3.5 border border-l-[3px] border-green bg-sheet px-3.5 py-3' : 'border-b border-rule'}
    >
      <div className="grid grid-cols-[20px_26px_1fr_96px_84px] items-baseline">
        <button type="button" className="cursor-grab self-center text-soft" aria-label={`Move “${field.label}”`} {...attributes} {...listeners}>
          <GripVertical size={14} />
        </button>
        <i className="font-serif text-[14px] text-soft not-italic">{index + 1}</i>
        <button type="button" onClick={toggle} aria-expanded={open} className="py-2 text-left text-[15.5px]">
          {field.label || 'No label yet'} {question.required ? <span className="text-soft">required</span> : null}
          {!open && question.asks && question.asks !== field.label ? <small className="block text-[12.5px] text-soft">{question.asks}</small> : null}
        </button>
        <span className="text-soft">{KIND_NAMES.find((each) => each.kind === field.type.kind)?.label.toLowerCase()}</span>
        <span className="text-soft">{inRules > 0 ? `in ${inRules} ${inRules === 1 ? 'rule' : 'rules'}` : ''}</span>
      </div>
      {open ? (
        <div className="mt-2 grid grid-cols-[112px_1fr] items-center gap-x-3 gap-y-2 text-soft">
          <label htmlFor={`label-${field.key}`}>Field</label>
          <input
            id={`label-${field.key}`}
            className="input"
            value={field.label}
            onChange={(event) => change((before) => editField(before, field.key, { label: event.target.value }))}
          />
          <label htmlFor={`asks-${field.key}`}>Asked as</label>
          <input
            id={`asks-${field.key}`}
            className="input"
            placeholder={field.label}
            value={question.asks}
            onChange={(event) => change((before) => editQuestion(before, field.key, { asks: event.target.value }))}
          />
          <label htmlFor={`help-${field.key}`}>Help</label>
          <input
            id={`help-${field.key}`}
            className="input"
            value={question.help}
            onChange={(event) => change((before) => editQuestion(before, field.key, { help: event.target.value }))}
          />
          <KindDetails field={field} setType={(type) => change((before) => editField(before, field.key, { type }))} />
          <span />
          <div className="flex flex-wrap items-center gap-3">
            <label className="flex items-center gap-2 text-ink">
              <input
                type="checkbox"
                className="accent-green"
                checked={question.required}
                onChange={(event) => change((before) => editQuestion(before, field.key, { required: event.target.checked }))}
              />
              Required
            </label>
            <span className="ml-auto" />
            <Button aria-label="Move up" disabled={index === 0} onClick={() => change((before) => moveQuestion(before, field.key, index - 1))}>
              <ArrowUp size={15} />
            </Button>
            <Button aria-label="Move down" disabled={index === draft.questions.length - 1} onClick={() => change((before) => moveQuestion(before, field.key, index + 1))}>
              <ArrowDown size={15} />
            </Button>
            <Button look="refuse" onClick={() => change((before) => dropQuestion(before, field.key, released))}>
              Take off the form
            </Button>
          </div>
          <span>In conditions</span>
          <code className="font-mono text-[12.5px]">{field.key}</code>
        </div>
      ) : null}
    </li>
  );
}

/** What a kind lets one set: options of a choice, places and unit of a number, the currency, no past dates. */
function KindDetails({ field, setType }: { field: Field; setType: (type: Kind) => void }) {
  const { type } = field;
  switch (type.kind) {
    case 'choice': {
      const set = (options: typeof type.options): void => setType({ ...type, options });
      return (
        <>
          <span className="self-start pt-1.5">Options</span>
          <div>
            {type.options.map((option) => (
              <div key={option.key} className="mb-1 flex items-center gap-2">
                <input
                  aria-label={`Option ${option.label}`}
                  className={`input ${option.retired ? 'line-through' : ''}`}
                  value={option.label}
                  onChange={(event) => set(type.options.map((each) => (each.key === option.key ? { ...each, label: event.target.value } : each)))}
                />
                <code className="w-24 truncate font-mono text-[12px]" title="How conditions name it">
                  {option.key}
                </code>
                <button
                  type="button"
                  className="text-[13px] text-green"
                  onClick={() => set(type.options.map((each) => (each.key === option.key ? { ...each, retired: !each.retired } : each)))}
                >
                  {option.retired ? 'offer again' : 'retire'}
                </button>
              </div>
            ))}
            <AddOption add={(label) => set([...type.options, { key: freshKey(label, new Set(type.options.map((option) => option.key))), label }])} />
          </div>
        </>
      );
    }
    case 'number':
      return (
        <>
          <span>Number</span>
          <div className="flex items-center gap-3">
            <label className="flex items-center gap-2">
              places{' '}
              <input
                className="input w-16"
                type="number"
                min={0}
                max={6}
                value={type.places}
                onChange={(event) => setType({ ...type, places: Math.min(6, Math.max(0, Math.trunc(Number(event.target.value) || 0))) })}
              />
            </label>
            <label className="flex items-center gap-2">
              unit <input className="input w-24" value={type.unit ?? ''} onChange={(event) => setType({ ...type, unit: event.target.value })} />
            </label>
          </div>
        </>
      );
    case 'money':
      return (
        <>
          <span>Currency</span>
          <input
            aria-label="Currency"
            className="input w-24"
            value={type.currency}
            maxLength={3}
            onChange={(event) => setType({ ...type, currency: event.target.value.toUpperCase() })}
          />
        </>
      );
    case 'date':
      return (
        <>
          <span>Date</span>
          <label className="flex items-center gap-2 text-ink">
            <input
              type="checkbox"
              className="accent-green"
              checked={type.notBeforeToday ?? false}
              onChange={(event) => setType({ ...type, notBeforeToday: event.target.checked })}
            />
            Today or later
          </label>
        </>
      );
    default:
      return null;
  }
}

function AddOption({ add }: { add: (label: string) => void }) {
  return (
    <input
      aria-label="Add an option"
      className="input"
      placeholder="Add an option, then Enter"
      onKeyDown={(event) => {
        const label = event.currentTarget.value.trim();
        if (event.key !== 'Enter' || label === '') return;
        event.preventDefault();
        add(label);
        event.currentTarget.value = '';
      }}
    />
  );
}
