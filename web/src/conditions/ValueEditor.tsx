import { type Pick as Choice, picksOf, type RowTest, type RowValue, type ScopeType } from '@tolvek/core/expression';
import { useState } from 'react';
import { DayField } from '../fields/DateInput.tsx';
import { say, told } from '../wire/words.ts';

interface ValueEditorProps {
  readonly name: string;
  readonly type: ScopeType | null;
  readonly test: RowTest;
  /** Whether “me” makes sense here. */
  readonly hasMe: boolean;
  readonly value: RowValue;
  readonly set: (value: RowValue) => void;
}

/**
 * The editor that fits what a test is held against: a picker for choices, a day or a distance from
 * today for dates.
 */
export function ValueEditor({ name, type, test, hasMe, value, set }: ValueEditorProps) {
  const plain = value.kind === 'plain' ? value.value : '';
  if (test === 'in the last days' || test === 'in the next days')
    return (
      <NumberValue
        name={name}
        value={Number(plain)}
        whole
        set={(days) => set({ kind: 'plain', value: Math.max(0, days) })}
        after={say('workshop:days')}
      />
    );
  if (type?.kind === 'date') return <DayValue name={name} value={value} set={set} />;
  if (type?.kind === 'yes-no')
    return (
      <Pick
        name={name}
        value={String(plain)}
        from={[
          { key: 'true', label: say('reasons:yes') },
          { key: 'false', label: say('reasons:no') },
        ]}
        set={(key) => set({ kind: 'plain', value: key === 'true' })}
      />
    );
  const picks = [
    ...(hasMe && type?.kind === 'person' ? [{ key: ME, label: say('reasons:me') }] : []),
    ...picksOf(type),
  ];
  if (picks.length > 0)
    return (
      <Pick
        name={name}
        value={value.kind === 'me' ? ME : String(plain)}
        from={picks}
        set={(key) => set(key === ME ? { kind: 'me' } : { kind: 'plain', value: key })}
      />
    );
  if (type?.kind === 'number')
    return (
      <NumberValue
        name={name}
        value={Number(plain)}
        set={(next) => set({ kind: 'plain', value: next })}
        after={type.unit ?? ''}
      />
    );
  return (
    <input
      aria-label={name}
      className="input w-44"
      value={String(plain)}
      onChange={(event) => set({ kind: 'plain', value: event.target.value })}
    />
  );
}

/** Stands for “me” among keys of people; no key begins with a colon. */
const ME = ':me';

function Pick({
  name,
  value,
  from,
  set,
}: {
  name: string;
  value: string;
  from: readonly Choice[];
  set: (key: string) => void;
}) {
  return (
    <select
      aria-label={name}
      className="input w-auto max-w-56"
      value={value}
      onChange={(event) => set(event.target.value)}
    >
      {from.some((each) => each.key === value) ? null : <option value={value}>{say('desk:choose')}</option>}
      {from.map((each) => (
        <option key={each.key} value={each.key}>
          {told(each.label)}
        </option>
      ))}
    </select>
  );
}

/** A number as it is typed; what is no number yet stays in the input and changes nothing. */
function NumberValue({
  name,
  value,
  set,
  after,
  whole = false,
}: {
  name: string;
  value: number;
  set: (value: number) => void;
  after: string;
  whole?: boolean;
}) {
  const [typed, setTyped] = useState(String(value));
  const shown = Number(typed) === value ? typed : String(value);
  const pattern = whole ? /^\d+$/ : /^-?\d+(\.\d+)?$/;
  return (
    <span className="flex items-center gap-1.5">
      <input
        aria-label={name}
        inputMode="decimal"
        className="input w-24"
        value={pattern.test(typed) ? shown : typed}
        aria-invalid={!pattern.test(typed)}
        onChange={(event) => {
          setTyped(event.target.value);
          if (pattern.test(event.target.value)) set(Number(event.target.value));
        }}
      />
      {after ? <span className="text-soft">{after}</span> : null}
    </span>
  );
}

const WAYS = ['day', 'today', 'after', 'before'] as const;

/** A day: one of the calendar, today, or so many days before or after it. */
function DayValue({ name, value, set }: { name: string; value: RowValue; set: (value: RowValue) => void }) {
  const days = value.kind === 'today' ? value.days : 0;
  const way = value.kind === 'date' ? 'day' : days === 0 ? 'today' : days > 0 ? 'after' : 'before';
  const choose = (next: (typeof WAYS)[number]): void => {
    if (next === 'day')
      set({ kind: 'date', iso: value.kind === 'date' ? value.iso : new Date().toISOString().slice(0, 10) });
    else set({ kind: 'today', days: next === 'today' ? 0 : (Math.abs(days) || 7) * (next === 'before' ? -1 : 1) });
  };
  return (
    <span className="flex items-center gap-1.5">
      {value.kind === 'date' ? (
        <DayField
          name={name}
          value={value.iso}
          today={new Date().toISOString().slice(0, 10)}
          notBefore={null}
          withTime={false}
          onChange={(iso) => /^\d{4}-\d\d-\d\d$/.test(iso) && set({ kind: 'date', iso })}
        />
      ) : null}
      {days === 0 ? null : (
        <NumberValue
          name={name}
          value={Math.abs(days)}
          whole
          set={(next) => set({ kind: 'today', days: next * Math.sign(days) })}
          after=""
        />
      )}
      <select
        aria-label={say('conditions:whichDay', { name })}
        className="input w-auto"
        value={way}
        onChange={(event) => choose(event.target.value as (typeof WAYS)[number])}
      >
        {WAYS.map((each) => (
          <option key={each} value={each}>
            {say(`conditions:day.${each}`)}
          </option>
        ))}
      </select>
    </span>
  );
}
