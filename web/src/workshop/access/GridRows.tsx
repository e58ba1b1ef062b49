import type { AccessRule } from '@tolvek/core/access';
import { fieldKeyOf } from '@tolvek/core/register';
import type { Words } from '@tolvek/words';
import { Fragment } from 'react';
import { say, told } from '../../wire/words.ts';
import { RECIPES, type Recipe } from './planEdits.ts';
import type { Plan } from './usePlan.ts';

export type Cells = Plan['grid']['rows'][number]['cells'];

const LOOKS = { hidden: 'font-semibold text-brick', read: 'text-soft', write: 'text-ink' } as const;

export interface RowProps {
  readonly seats: readonly Words[];
  /** The places of the seats that are shown. */
  readonly shown: readonly number[];
  readonly labelOf: (key: string) => string;
  readonly rules: readonly AccessRule[];
  /** The cell that is open: its row, and the place of its seat. */
  readonly open: readonly [string, number] | null;
  readonly setOpen: (open: readonly [string, number] | null) => void;
  readonly unplaced: readonly string[];
  /** Begins a rule about fields; `called`: what it is named after, where that is not the first of them. */
  readonly add: (recipe: Recipe, fields: readonly string[], called?: string) => void;
  /** Opens a rule, to be changed. */
  readonly change: (id: string) => void;
  /** Keys of the fields whose reading is recorded, and what has it recorded, or not any more. */
  readonly noted: readonly string[];
  readonly note: (field: string) => void;
}

interface FieldRowProps extends RowProps {
  readonly field: string;
  readonly cells: Cells;
  /** Whether the columns of its lines are shown, and what shows them or not any more; null for what has none. */
  readonly columns: { readonly isOpen: boolean; readonly toggle: () => void } | null;
}

/** A field, or a column of lines, and what each may do with it. */
export function FieldRow({ field, cells, columns, ...row }: FieldRowProps) {
  const { shown, seats, labelOf, open, setOpen, unplaced, noted } = row;
  const at = open?.[0] === field ? open[1] : null;
  const cell = at === null ? undefined : cells[at];
  const isColumn = fieldKeyOf(field) !== field;
  const label = labelOf(field);
  return (
    <>
      <tr className="border-b border-rule">
        <th scope="row" className={`py-1 pr-3 text-left font-normal ${isColumn ? 'pl-4 text-[0.93em]' : ''}`}>
          {isColumn ? label.slice(labelOf(fieldKeyOf(field)).length + ' · '.length) : label}
          {columns ? (
            <button
              type="button"
              className="ml-2 text-[11.5px] text-green underline"
              aria-expanded={columns.isOpen}
              onClick={columns.toggle}
            >
              {say('accessPlan:columns')}
            </button>
          ) : null}
          {unplaced.includes(field) ? (
            <span className="block text-[11.5px] text-brass">{say('accessPlan:isNew')}</span>
          ) : null}
          {noted.includes(field) ? (
            <span className="block text-[11.5px] text-soft">{say('accessPlan:isNoted')}</span>
          ) : null}
        </th>
        {shown.map((seat) => {
          const each = cells[seat];
          if (!each) return <td key={seat} />;
          const { level, most, was } = each;
          return (
            <td key={seat} className="py-1 pr-3">
              <button
                type="button"
                aria-expanded={at === seat}
                className={`-ml-1 rounded px-1 text-left hover:underline ${LOOKS[level]} ${was === null ? '' : 'bg-green-wash outline outline-1 outline-green'}`}
                onClick={() => setOpen(at === seat ? null : [field, seat])}
              >
                {say(`accessPlan:cell.${level}`)}
                {most === null ? null : (
                  <span className="font-normal text-soft">
                    {' '}
                    {say('accessPlan:cellOr', { most: say(`accessPlan:cell.${most}`) })}
                  </span>
                )}
                {was === null ? null : (
                  <span className="block text-[11.5px] font-normal text-soft">
                    {say('accessPlan:cellWas', { was: say(`accessPlan:cell.${was}`) })}
                  </span>
                )}
              </button>
            </td>
          );
        })}
      </tr>
      {cell ? (
        <Opened width={shown.length}>
          {say('accessPlan:because', {
            who: told(seats[at ?? 0] ?? ''),
            field: label,
            level: say(`accessPlan:cell.${cell.level}`),
            rule: told(cell.rule),
          })}{' '}
          {cell.most === null ? null : say('accessPlan:becauseMost', { most: say(`accessPlan:cell.${cell.most}`) })}
          <Ways {...row} fields={[field]} decided={told(cell.rule)} isNoted={isColumn ? null : noted.includes(field)} />
        </Opened>
      ) : null}
    </>
  );
}

interface TogetherRowProps extends RowProps {
  readonly section: Pick<Plan['together'][number], 'form' | 'title' | 'kind' | 'fields'>;
  /** What comes of each of its fields. */
  readonly cells: readonly Cells[];
}

/** Fields that stand together: what each may do with all of them, where it is the same; and rules about all of them. */
export function TogetherRow({ section, cells, ...row }: TogetherRowProps) {
  const { shown, seats, open, setOpen, labelOf } = row;
  const { form, title, kind, fields } = section;
  const id = `§ ${form} ${title} ${kind}`;
  const at = open?.[0] === id ? open[1] : null;
  const name = kind === 'asked' ? (title ?? say('accessPlan:otherQuestions')) : say(`accessPlan:together.${kind}`);
  return (
    <Fragment>
      <tr className="border-b border-rule-strong">
        <th scope="rowgroup" className="pt-4 pb-1 pr-3 text-left font-semibold">
          {name}
          {form === null ? null : <span className="block text-[11.5px] font-normal text-soft">{form}</span>}
        </th>
        {shown.map((seat) => {
          const levels = new Set(cells.map((each) => `${each[seat]?.level} ${each[seat]?.most}`));
          const [first] = cells;
          const level = levels.size === 1 && first?.[seat]?.most === null ? first[seat]?.level : undefined;
          return (
            <td key={seat} className="pt-4 pb-1 pr-3">
              <button
                type="button"
                aria-expanded={at === seat}
                aria-label={say('accessPlan:allOf', { section: name, who: told(seats[seat] ?? '') })}
                className="-ml-1 rounded px-1 text-left text-[11.5px] text-soft hover:underline"
                onClick={() => setOpen(at === seat ? null : [id, seat])}
              >
                {level ? say(`accessPlan:all.${level}`) : say('accessPlan:all.differs')}
              </button>
            </td>
          );
        })}
      </tr>
      {at === null ? null : (
        <Opened width={shown.length}>
          {say('accessPlan:ruleForAll', { section: name, fields: fields.map(labelOf) })}
          <Ways {...row} fields={fields} called={name} decided={null} isNoted={null} />
        </Opened>
      )}
    </Fragment>
  );
}

const Opened = ({ width, children }: { width: number; children: React.ReactNode }) => (
  <tr>
    <td colSpan={width + 1} className="border-l-[3px] border-green bg-sheet px-3 py-2">
      {children}
    </td>
  </tr>
);

interface WaysProps extends Pick<RowProps, 'rules' | 'add' | 'change' | 'note'> {
  readonly fields: readonly string[];
  readonly called?: string;
  /** The rule that decided, by name. */
  readonly decided: string | null;
  /** Whether reading it is recorded; null where that is not to be said here. */
  readonly isNoted: boolean | null;
}

/** What can be done about fields from where one looks at them. */
function Ways({ fields, called, decided, isNoted, rules, add, change, note }: WaysProps) {
  const [field = ''] = fields;
  return (
    <span className="mt-1 flex flex-wrap gap-4">
      {rules
        .filter(({ name }) => name.trim() === decided)
        .map(({ id }) => (
          <button key={id} type="button" className="text-green underline" onClick={() => change(id)}>
            {say('accessPlan:changeThis')}
          </button>
        ))}
      {RECIPES.map((recipe) => (
        <button key={recipe} type="button" className="text-green underline" onClick={() => add(recipe, fields, called)}>
          {say(`accessPlan:forField.${recipe}`)}
        </button>
      ))}
      {isNoted === null ? null : (
        <button type="button" className="text-green underline" onClick={() => note(field)}>
          {say(isNoted ? 'accessPlan:noteNoMore' : 'accessPlan:noteReading')}
        </button>
      )}
    </span>
  );
}
