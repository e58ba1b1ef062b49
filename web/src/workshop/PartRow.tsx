import { useSortable } from '@dnd-kit/sortable';
import { type Part, partKey, type WhenHidden } from '@tolvek/core/form';
import {
  asKind,
  type Field,
  type FilledField,
  isFilled,
  KIND_CHANGES,
  type KindName,
  namesAround,
  sayValue,
} from '@tolvek/core/register';
import type { Key } from '@tolvek/words';
import { ArrowDown, ArrowUp, GripVertical } from 'lucide-react';
import { memo, type ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { FormulaEditor } from '../conditions/FormulaEditor.tsx';
import { Button } from '../ui/Button.tsx';
import { say, told } from '../wire/words.ts';
import { aroundKinds, type Editing } from './editing.ts';
import { dropParts, editField, editPart, kindLabel, movePart } from './edits.ts';
import { KindDetails } from './KindDetails.tsx';
import { PresetEditor } from './PresetEditor.tsx';
import { Reaches } from './Reaches.tsx';

interface PartRowProps {
  readonly part: Part;
  /** The field of a question. */
  readonly field: Field | undefined;
  readonly index: number;
  readonly isLast: boolean;
  /** Its number among the questions, for a question. */
  readonly number: number | null;
  /** How many rules name it. */
  readonly inRules: number;
  /** Where it is open: what it is edited with. A line that is closed is drawn again only for what it says. */
  readonly editing: Editing | null;
  readonly toggle: (key: string) => void;
  readonly picked: boolean;
  readonly pick: (key: string) => void;
}

const PART_WORDS = {
  section: 'workshop:part.section',
  page: 'workshop:part.page',
  instruction: 'workshop:part.instruction',
} as const;

/** One part of the form as a ruled line; opened, everything about it is edited in place. */
export const PartRow = memo(function PartRow({
  part,
  field,
  index,
  isLast,
  number,
  inRules,
  editing,
  toggle,
  picked,
  pick,
}: PartRowProps) {
  const open = editing !== null;
  const key = partKey(part);
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: key });
  const name =
    field?.label ||
    (part.part === 'section' || part.part === 'page' ? part.title : part.part === 'instruction' ? part.text : '') ||
    say('workshop:noNameYet');
  const isHeading = part.part === 'section' || part.part === 'page';
  return (
    <li
      ref={setNodeRef}
      id={`at-${key}`}
      style={{ transform: transform ? `translateY(${transform.y}px)` : undefined, transition }}
      className={
        open
          ? '-mx-3.5 border border-l-[3px] border-green bg-sheet px-3.5 py-3'
          : `drawn-in-view border-b border-rule [contain-intrinsic-block-size:auto_40px] ${part.part === 'page' ? 'mt-3 border-t-2 border-t-rule-strong' : ''}`
      }
    >
      <div className="grid grid-cols-[24px_24px_26px_minmax(0,1fr)_108px_66px] items-baseline gap-x-1">
        <button
          type="button"
          className="inline-flex size-6 shrink-0 items-center justify-center cursor-grab self-center text-soft"
          aria-label={say('workshop:moveNo', { name })}
          {...attributes}
          {...listeners}
        >
          <GripVertical size={14} />
        </button>
        <label className="inline-flex size-6 cursor-pointer items-center justify-center self-center">
          <input
            type="checkbox"
            className="accent-green"
            aria-label={say('workshop:selectNo', { name })}
            checked={picked}
            onChange={() => pick(key)}
          />
        </label>
        <i className="font-serif text-[14px] text-soft not-italic">{number ?? ''}</i>
        <button
          type="button"
          onClick={() => toggle(key)}
          aria-expanded={open}
          className={`truncate py-2 text-left text-[15.5px] ${isHeading ? 'subject' : part.part === 'instruction' ? 'text-soft' : ''}`}
        >
          {name}{' '}
          {part.part === 'question' && part.required ? (
            <span className="text-soft">{say('workshop:required')}</span>
          ) : null}
          {!open && part.part === 'question' && part.asks && part.asks !== field?.label ? (
            <small className="block truncate text-[12.5px] text-soft">{part.asks}</small>
          ) : null}
        </button>
        <span className="text-soft">
          {field
            ? say(`fieldKinds:${field.type.kind}`)
            : part.part === 'question'
              ? say('workshop:noField')
              : say(PART_WORDS[part.part])}
        </span>
        <span className="text-soft">{inRules > 0 ? say('workshop:inRules', { count: inRules }) : ''}</span>
      </div>
      {editing ? <PartDetails part={part} field={field} index={index} isLast={isLast} editing={editing} /> : null}
    </li>
  );
});

/** All about a part, to be edited in place. */
function PartDetails({
  part,
  field,
  index,
  isLast,
  editing,
}: Pick<PartRowProps, 'part' | 'field' | 'index' | 'isLast'> & { editing: Editing }) {
  const { change } = editing;
  const { key: form = '' } = useParams();
  const key = partKey(part);
  const isHeading = part.part === 'section' || part.part === 'page';
  return (
    <div className="mt-2 grid grid-cols-[92px_minmax(0,1fr)] items-center gap-x-3 gap-y-2 text-soft">
      {part.part === 'question' && field ? <QuestionDetails part={part} field={field} editing={editing} /> : null}
      {isHeading ? (
        <>
          <Text
            id={`title-${key}`}
            name={say('workshop:titleName')}
            value={part.title}
            set={(title) => change((before) => editPart(before, key, { title }))}
          />
          <Text
            id={`text-${key}`}
            name={say('workshop:belowName')}
            rows={2}
            value={part.text}
            set={(text) => change((before) => editPart(before, key, { text }))}
          />
        </>
      ) : null}
      {part.part === 'instruction' ? <WordsDetails part={part} editing={editing} /> : null}
      <span />
      <div className="flex flex-wrap items-center gap-2">
        {part.part === 'question' ? (
          <label className="mr-auto flex items-center gap-2 text-ink">
            <input
              type="checkbox"
              className="accent-green"
              checked={part.required}
              onChange={(event) => change((before) => editPart(before, key, { required: event.target.checked }))}
            />
            {say('workshop:requiredWord')}
          </label>
        ) : (
          <span className="mr-auto" />
        )}
        {part.part === 'question' ? (
          <Link to={`/workshop/${form}/access?field=${part.field}`} className="mr-3">
            {say('workshop:whoSees')}
          </Link>
        ) : null}
        <Button
          aria-label={say('workshop:moveUp')}
          disabled={index === 0}
          onClick={() => change((before) => movePart(before, key, index - 1))}
        >
          <ArrowUp size={15} />
        </Button>
        <Button
          aria-label={say('workshop:moveDown')}
          disabled={isLast}
          onClick={() => change((before) => movePart(before, key, index + 1))}
        >
          <ArrowDown size={15} />
        </Button>
        <Button look="refuse" onClick={() => change((before) => dropParts(before, new Set([key]), editing.released))}>
          {say('workshop:removeFromForm')}
        </Button>
      </div>
    </div>
  );
}

function Text({
  id,
  name,
  value,
  set,
  rows,
  placeholder,
}: {
  id: string;
  name: string;
  value: string;
  set: (value: string) => void;
  rows?: number;
  placeholder?: string;
}) {
  const shared = { id, className: 'input', placeholder, value };
  return (
    <>
      <label htmlFor={id} className={rows ? 'self-start pt-1.5' : ''}>
        {name}
      </label>
      {rows ? (
        <textarea {...shared} rows={rows} onChange={(event) => set(event.target.value)} />
      ) : (
        <input {...shared} onChange={(event) => set(event.target.value)} />
      )}
    </>
  );
}

/** What requesters read of a field in place of the desk’s name for it. */
const Called = ({ field, editing }: { field: Field; editing: Editing }) => (
  <Text
    id={`called-${field.key}`}
    name={say('workshop:publicName')}
    placeholder={field.label}
    value={field.called ?? ''}
    set={(called) =>
      editing.change((before) =>
        editField(before, field.key, ({ called: _, ...each }) =>
          called === '' ? (each as Field) : ({ ...each, called } as Field),
        ),
      )
    }
  />
);

const HIDDEN_WORDS = {
  ignored: 'workshop:hidden.ignored',
  cleared: 'workshop:hidden.cleared',
  kept: 'workshop:hidden.kept',
} as const satisfies Record<WhenHidden, Key>;

function QuestionDetails({
  part,
  field,
  editing,
}: {
  part: Extract<Part, { part: 'question' }>;
  field: Field;
  editing: Editing;
}) {
  const { draft, change, proof } = editing;
  const { key } = field;
  return (
    <>
      <FieldLine field={field} editing={editing} />
      <Text
        id={`asks-${key}`}
        name={say('workshop:question')}
        placeholder={field.label}
        value={part.asks}
        set={(asks) => change((before) => editPart(before, key, { asks }))}
      />
      <Text
        id={`help-${key}`}
        name={say('workshop:help')}
        rows={part.help.length > 80 ? 3 : 1}
        value={part.help}
        set={(help) => change((before) => editPart(before, key, { help }))}
      />
      <Called field={field} editing={editing} />
      <KindDetails
        field={field}
        around={aroundKinds(editing)}
        setType={(type) => change((before) => editField(before, key, (each) => ({ ...each, type })))}
      />
      {isFilled(field) ? (
        <PresetEditor
          field={field}
          draft={draft}
          scope={proof.scope}
          set={(preset) =>
            change((before) => editField(before, key, (each) => (isFilled(each) ? withPreset(each, preset) : each)))
          }
        />
      ) : null}
      <label htmlFor={`hidden-${key}`}>{say('workshop:whenHidden')}</label>
      <span className="flex items-center gap-2">
        {say('workshop:itsAnswer')}
        <select
          id={`hidden-${key}`}
          className="input w-auto"
          value={part.whenHidden ?? 'ignored'}
          onChange={(event) =>
            change((before) => editPart(before, key, { whenHidden: event.target.value as WhenHidden }))
          }
        >
          {Object.entries(HIDDEN_WORDS).map(([way, words]) => (
            <option key={way} value={way}>
              {say(words)}
            </option>
          ))}
        </select>
      </span>
    </>
  );
}

function withPreset(field: FilledField, preset: Extract<Field, { preset?: unknown }>['preset'] | undefined): Field {
  const { preset: _, ...rest } = field;
  return preset ? { ...rest, preset } : rest;
}

/** The name of a field, and what conditions call it. */
function FieldLine({ field, editing }: { field: Field; editing: Editing }) {
  const taken = editing.released.has(field.key);
  return (
    <>
      <label htmlFor={`label-${field.key}`}>{say('workshop:field')}</label>
      <span className="flex items-center gap-3">
        <input
          id={`label-${field.key}`}
          className="input"
          value={field.label}
          onChange={(event) =>
            editing.change((before) => editField(before, field.key, (each) => ({ ...each, label: event.target.value })))
          }
        />
        <code
          className="max-w-40 shrink-0 truncate font-mono text-[12px]"
          title={taken ? say('workshop:keyHint') : say('workshop:keyHintShort')}
        >
          {field.key}
        </code>
      </span>
      {taken && KIND_CHANGES[field.type.kind] ? (
        <>
          <label htmlFor={`becomes-${field.key}`}>{say('workshop:kind')}</label>
          <select
            id={`becomes-${field.key}`}
            className="input w-auto justify-self-start"
            value={field.type.kind}
            onChange={(event) =>
              editing.change((before) =>
                editField(before, field.key, (each) => asKind(each, event.target.value as KindName)),
              )
            }
          >
            {[field.type.kind, ...(KIND_CHANGES[field.type.kind] ?? [])].map((kind) => (
              <option key={kind} value={kind}>
                {kindLabel(kind)}
              </option>
            ))}
          </select>
        </>
      ) : null}
      {editing.others.length > 0 ? (
        <>
          <span />
          <span className="text-[12.5px]">
            {say('workshop:registerOwns')} <Reaches others={editing.others} />
          </span>
        </>
      ) : null}
    </>
  );
}

function WordsDetails({ part, editing }: { part: Extract<Part, { part: 'instruction' }>; editing: Editing }) {
  const { change } = editing;
  const edit = (next: Partial<typeof part>): void => change((before) => editPart<typeof part>(before, part.id, next));
  return (
    <>
      <Text
        id={`text-${part.id}`}
        name={say('workshop:textName')}
        rows={3}
        placeholder={say('workshop:textHint')}
        value={part.text}
        set={(text) => edit({ text })}
      />
      <span>{say('workshop:emailLink')}</span>
      <span className="flex items-center gap-2">
        <input
          aria-label={say('workshop:emailLinkTo')}
          className="input"
          placeholder={say('workshop:nobody')}
          value={part.mail?.to ?? ''}
          onChange={(event) => change((before) => withMail(before, part, event.target.value, part.mail?.label ?? ''))}
        />
        <input
          aria-label={say('workshop:emailLinkText')}
          className="input"
          placeholder={say('workshop:emailLinkTextHint')}
          disabled={!part.mail}
          value={part.mail?.label ?? ''}
          onChange={(event) => change((before) => withMail(before, part, part.mail?.to ?? '', event.target.value))}
        />
      </span>
    </>
  );
}

function withMail(
  design: Editing['draft'],
  part: Extract<Part, { part: 'instruction' }>,
  to: string,
  label: string,
): Editing['draft'] {
  const { mail: _, ...rest } = part;
  return {
    ...design,
    parts: design.parts.map((each) =>
      partKey(each) === part.id ? (to === '' ? rest : { ...rest, mail: { to, label } }) : each,
    ),
  };
}

/** A field that no form asks, as a line; opened, it is edited in place. */
export function FieldRow({
  field,
  editing,
  open,
  toggle,
  children,
}: {
  field: Field;
  editing: Editing;
  open: boolean;
  toggle: () => void;
  children?: ReactNode;
}) {
  const { draft, change, proof } = editing;
  const value = proof.completion.values[field.key];
  const sample = value === undefined ? '' : told(sayValue(field, value, namesAround(proof.facts)));
  return (
    <div
      id={`at-${field.key}`}
      className={open ? '-mx-3.5 border border-l-[3px] border-green bg-sheet px-3.5 py-3' : 'border-b border-rule'}
    >
      <div className="grid grid-cols-[68px_minmax(0,1fr)_auto_96px] items-baseline gap-x-2">
        <span />
        <button type="button" onClick={toggle} aria-expanded={open} className="truncate py-2 text-left text-[15.5px]">
          {field.label || say('workshop:noLabelYet')}
        </button>
        <span className="text-soft tabular-nums">{isFilled(field) ? '' : sample}</span>
        <span className="text-soft">{say(`fieldKinds:${field.type.kind}`)}</span>
      </div>
      {open ? (
        <div className="mt-2 grid grid-cols-[92px_minmax(0,1fr)] items-center gap-x-3 gap-y-2 text-soft">
          <FieldLine field={field} editing={editing} />
          <Called field={field} editing={editing} />
          {children}
          <KindDetails
            field={field}
            around={aroundKinds(editing)}
            setType={(type) => change((before) => editField(before, field.key, (each) => ({ ...each, type })))}
          />
          {field.source === 'computed' ? (
            <>
              <span className="self-start pt-1.5">{say('workshop:formula')}</span>
              <FormulaEditor
                name={say('workshop:formulaOf', { label: field.label })}
                formula={field.formula}
                scope={proof.scope}
                sample={sample}
                set={(formula) =>
                  change((before) =>
                    editField(before, field.key, (each) => (each.source === 'computed' ? { ...each, formula } : each)),
                  )
                }
              />
            </>
          ) : isFilled(field) ? (
            <PresetEditor
              field={field}
              draft={draft}
              scope={proof.scope}
              set={(preset) =>
                change((before) =>
                  editField(before, field.key, (each) => (isFilled(each) ? withPreset(each, preset) : each)),
                )
              }
            />
          ) : null}
          {editing.released.has(field.key) ? null : (
            <>
              <span />
              <span>
                <Button
                  look="refuse"
                  onClick={() =>
                    change((before) => ({ ...before, fields: before.fields.filter((each) => each.key !== field.key) }))
                  }
                >
                  {say('workshop:removeField')}
                </Button>
              </span>
            </>
          )}
        </div>
      ) : null}
    </div>
  );
}
