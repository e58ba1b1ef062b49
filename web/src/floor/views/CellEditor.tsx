import type { AnswerOf } from '@tolvek/contract';
import { type Field, priorities, type RawAnswer } from '@tolvek/core/register';
import { calledIn, isFact } from '@tolvek/core/view';
import { said, type Words } from '@tolvek/words';
import { Popover } from 'radix-ui';
import { type FormEvent, useEffect, useId, useRef, useState } from 'react';
import { EditInPlace, toWorkOn } from '../../fields/EditInPlace.tsx';
import { AroundFieldsProvider } from '../../fields/input.ts';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { problemOf } from '../../wire/problem.ts';
import { say, told } from '../../wire/words.ts';
import { floorApi } from '../endpoints.ts';
import { helpFor } from '../SheetFields.tsx';
import { useAroundSheet } from '../useAroundSheet.ts';
import { NO_WAY, type Value } from './boardMoves.ts';
import { useMoves } from './useMoves.ts';

type Sheet = AnswerOf<'sheet'>;

interface CellEditorProps {
  /** The cell it is changed in. */
  readonly cell: HTMLElement;
  readonly number: string;
  /** A fact, or a field by its key. */
  readonly subject: string;
  readonly fields: readonly Field[];
  /** What is typed and not saved yet; undefined where nothing is. */
  readonly typed: RawAnswer | undefined;
  readonly setTyped: (typed: RawAnswer | undefined) => void;
  /** Whether what was typed is saved as soon as it can be. */
  readonly saves?: boolean | undefined;
  readonly close: () => void;
}

/** What stands in a cell, changed as on the sheet of its request: with its help, by its rules, or with the reason why it can’t be. */
export function CellEditor({ cell, number, subject, fields, typed, setTyped, saves = false, close }: CellEditorProps) {
  const { data, error } = floorApi.useSheetQuery({ number }, { refetchOnMountOrArgChange: true });
  const sheet = data?.number === number ? data : undefined;
  const called = told(calledIn(subject, fields));
  return (
    <Popover.Root open onOpenChange={close}>
      <Popover.Anchor virtualRef={{ current: cell }} />
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={2}
          collisionPadding={12}
          aria-label={say('views:changeCell', { what: called, number })}
          className="z-30 w-[22rem] max-w-[calc(100vw-24px)] overflow-auto border border-rule-strong bg-sheet px-4 py-2 shadow-lg"
          onOpenAutoFocus={(event) => event.preventDefault()}
          onCloseAutoFocus={(event) => event.preventDefault()}
          onKeyDown={(event) => event.stopPropagation()}
        >
          {error ? <Trouble error={error} /> : null}
          {!sheet && !error ? <p className="py-2 text-soft">{say('views:opening')}</p> : null}
          {sheet && isFact(subject) ? (
            <FactEditor {...{ sheet, subject, called }} end={close} />
          ) : sheet ? (
            <FieldEditor
              {...{ sheet, subject, called, typed, setTyped, saves }}
              end={() => {
                setTyped(undefined);
                close();
              }}
            />
          ) : null}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Puts the focus into what is changed, as soon as it is there. */
function useFocus(id: string): void {
  useEffect(() => document.getElementById(id)?.focus(), [id]);
}

interface FieldEditorProps {
  readonly sheet: Sheet;
  readonly subject: string;
  readonly called: string;
  readonly typed: RawAnswer | undefined;
  readonly setTyped: (typed: RawAnswer | undefined) => void;
  readonly saves: boolean;
  /** Ends it, saved or given up: what was typed goes. */
  readonly end: () => void;
}

function FieldEditor({ sheet, subject, called, typed, setTyped, saves, end }: FieldEditorProps) {
  const id = useId();
  useFocus(id);
  const around = useAroundSheet(sheet);
  const [change, { isLoading, error }] = floorApi.useChangeFieldsMutation();
  const field = sheet.values.fields.find(({ key }) => key === subject);
  const put = async (answer: RawAnswer): Promise<void> => {
    const { number, version } = sheet;
    const done = await change({ number, version, body: { changes: { [subject]: answer } } });
    if (!('error' in done)) end();
  };
  // Once: what is wrong with it is said, and changed by hand.
  const isWaiting = useRef(saves);
  const isWritable = field?.writable === true;
  useEffect(() => {
    if (!saves || !isWritable || typed === undefined || !isWaiting.current) return;
    isWaiting.current = false;
    void put(typed);
  });
  const type = sheet.fieldTypes[subject];
  if (!field || !type || !field.writable)
    return <Closed id={id} called={called} why={field?.why ?? NO_WAY} stop={end} />;
  const value = typed ?? toWorkOn(type, field.value);
  const save = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    await put(value);
  };
  return (
    <AroundFieldsProvider value={around}>
      <EditInPlace
        id={id}
        className=""
        field={{ key: subject, label: `${called}, ${sheet.number}`, type }}
        lines={field.lines}
        help={helpFor(sheet, subject)}
        value={value}
        set={setTyped}
        problem={error ? problemOf(error) : null}
        {...{ isLoading, save }}
        stop={end}
      />
    </AroundFieldsProvider>
  );
}

/** What it may become as its sheet says, where it is not typed but chosen. */
function waysOf(sheet: Sheet, subject: string): readonly { readonly value: Value; readonly label: Words }[] {
  switch (subject) {
    case 'request.stage':
      return sheet.may.move ? sheet.moves.map(({ key, label }) => ({ value: key, label })) : [];
    case 'request.handler':
      return sheet.may.assign
        ? [
            { value: null, label: said('floor:noHandler') },
            ...sheet.assignable.map(({ id, name }) => ({ value: id, label: name })),
          ]
        : [];
    case 'request.team':
      return sheet.teams.flatMap(({ key, name, here }) => (here ? [] : [{ value: key, label: name }]));
    case 'request.priority':
      return sheet.teams.length > 0 && sheet.priority !== null
        ? priorities.map((key) => ({ value: key, label: said(`priorities:${key}`) }))
        : [];
    default:
      return [];
  }
}

/** Stage, handler, team or priority, given by choosing; what is chosen is done at once. */
function FactEditor({
  sheet,
  subject,
  called,
  end,
}: {
  sheet: Sheet;
  subject: string;
  called: string;
  end: () => void;
}) {
  const id = useId();
  useFocus(id);
  const move = useMoves();
  const ways = waysOf(sheet, subject);
  const [chosen, setChosen] = useState('');
  const [isBusy, setBusy] = useState(false);
  if (ways.length === 0) return <Closed id={id} called={called} why={NO_WAY} stop={end} />;
  const save = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const way = ways[Number(chosen)];
    if (chosen === '' || !way) {
      end();
      return;
    }
    setBusy(true);
    await move(sheet, [[subject, way]]);
    end();
  };
  return (
    <form
      className="py-2"
      onSubmit={(event) => void save(event)}
      onKeyDown={(event) => event.key === 'Escape' && end()}
    >
      <label htmlFor={id} className="mb-1 block text-soft">
        {called}, {sheet.number}
      </label>
      <select id={id} className="input" value={chosen} onChange={({ target }) => setChosen(target.value)}>
        <option value="">{say('views:asItIs')}</option>
        {ways.map(({ value, label }, place) => (
          <option key={String(value)} value={place}>
            {told(label)}
          </option>
        ))}
      </select>
      {sheet.notNow.length > 0 && subject === 'request.stage' ? (
        <ul className="mt-2 text-[13px] text-soft">
          {sheet.notNow.map(({ label, whyNot }) => (
            <li key={label}>
              {label}: {told(whyNot)}
            </li>
          ))}
        </ul>
      ) : null}
      <div className="mt-2 flex gap-2">
        <Button type="submit" look="main" disabled={isBusy}>
          {say('common:save')}
        </Button>
        <Button onClick={() => end()}>{say('common:cancel')}</Button>
      </div>
    </form>
  );
}

/** Why something can’t be changed here. */
const Closed = ({ id, called, why, stop }: { id: string; called: string; why: Words; stop: () => void }) => (
  <div className="py-2">
    <p className="text-soft">{called}</p>
    <p className="my-1">{told(why)}</p>
    <Button id={id} onClick={stop}>
      {say('common:close')}
    </Button>
  </div>
);
