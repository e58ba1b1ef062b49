import { wallClockAt } from '@tolvek/core/deadline';
import type { DesignFinding } from '@tolvek/core/design';
import { MOST_SHIFTS, type Shift } from '@tolvek/core/roster';
import { DayField } from '../../fields/DateInput.tsx';
import { Button } from '../../ui/Button.tsx';
import { say } from '../../wire/words.ts';
import { WEEKDAYS } from '../groundwork/calendarDraft.ts';
import { MoveButtons } from '../MoveButtons.tsx';
import { editShift, movePerson, newShift, type RosterDraft, toggleDay } from './rosterDraft.ts';
import type { Ground } from './useRosterAhead.ts';
import { Wrong } from './Wrong.tsx';

export interface PartProps {
  readonly draft: RosterDraft;
  readonly change: (edit: (before: RosterDraft) => RosterDraft) => void;
  readonly ground: Ground;
  readonly findings: readonly DesignFinding[];
  /** ISO 8601. */
  readonly now: string;
  readonly nameOf: (id: string) => string;
}

/** The shifts of a roster: on which days, from when to when, and who has it in turn. */
export function Shifts(props: PartProps) {
  const { draft, change, findings, now } = props;
  const today = wallClockAt(Date.parse(now), 'UTC').slice(0, 10);
  return (
    <>
      <ol>
        {draft.shifts.map((shift, place) => (
          <li key={shift.id} className="border-b border-rule py-3.5">
            <ShiftOf {...props} shift={shift} name={shift.name || say('rosters:shiftNumber', { n: place + 1 })} />
          </li>
        ))}
      </ol>
      <Wrong findings={findings} at="shifts" />
      <p className="mt-3">
        <Button
          disabled={draft.shifts.length >= MOST_SHIFTS}
          onClick={() =>
            change((before) => ({ ...before, shifts: [...before.shifts, newShift(crypto.randomUUID(), today)] }))
          }
        >
          {say('rosters:addShift')}
        </Button>
      </p>
    </>
  );
}

interface ShiftProps extends PartProps {
  readonly shift: Shift;
  /** What it is called where it has no name. */
  readonly name: string;
}

function ShiftOf({ shift, name, change, ground, findings, now, nameOf }: ShiftProps) {
  const { id, people, passes } = shift;
  const edit = (next: Partial<Omit<Shift, 'id'>>): void => change((before) => editShift(before, id, next));
  const at = (part: string): string => `shifts ${id} ${part}`;
  const isOvernight = shift.to <= shift.from;
  return (
    <fieldset>
      <legend className="sr-only">{name}</legend>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <input
          className="input w-44 py-1"
          aria-label={say('rosters:shiftName', { name })}
          placeholder={name}
          value={shift.name}
          onChange={({ target }) => edit({ name: target.value })}
        />
        <fieldset className="flex gap-1" aria-label={say('rosters:daysOf', { name })}>
          {WEEKDAYS.map((weekday, place) => (
            <button
              key={weekday}
              type="button"
              aria-pressed={shift.days.includes(place + 1)}
              aria-label={say(`calendars:${weekday}`)}
              className="min-w-9 rounded border border-edge px-1.5 py-1 text-[13px] text-soft aria-pressed:border-green aria-pressed:bg-green-wash aria-pressed:font-semibold aria-pressed:text-ink"
              onClick={() => change((before) => toggleDay(before, id, place + 1))}
            >
              {say(`rosters:short.${weekday}`)}
            </button>
          ))}
        </fieldset>
        <span className="flex items-center gap-1.5">
          <Clock label={say('rosters:beginsAt', { name })} value={shift.from} set={(from) => edit({ from })} />
          –
          <Clock label={say('rosters:endsAt', { name })} value={shift.to} set={(to) => edit({ to })} />
          {isOvernight ? <span className="text-[13px] text-soft">{say('rosters:nextDay')}</span> : null}
        </span>
        <button
          type="button"
          className="ml-auto text-[13px] text-green underline"
          onClick={() => change((before) => ({ ...before, shifts: before.shifts.filter((each) => each.id !== id) }))}
        >
          {say('rosters:removeShift')}
        </button>
      </div>
      <Wrong findings={findings} at={at('days')} />
      <Wrong findings={findings} at={at('from')} />
      <Wrong findings={findings} at={at('to')} />
      <ol className="mt-2.5 flex flex-wrap items-center gap-1.5">
        {people.map((person, place) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: somebody can have two turns; a turn is known by its place.
          <li key={place} className="flex items-center gap-1 border border-rule bg-paper px-1 py-1 pl-2">
            {people.length > 1 ? <span className="text-[12.5px] text-soft tabular-nums">{place + 1}</span> : null}
            <span className="px-1">{nameOf(person)}</span>
            {people.length > 1 ? (
              <MoveButtons
                index={place}
                of={people.length}
                words={[
                  say('rosters:earlier', { person: nameOf(person) }),
                  say('rosters:later', { person: nameOf(person) }),
                ]}
                move={(by) => change((before) => movePerson(before, id, place, by))}
              />
            ) : null}
            <button
              type="button"
              className="size-6 shrink-0 text-soft hover:text-brick"
              aria-label={say('rosters:takeOff', { person: nameOf(person), name })}
              onClick={() => edit({ people: people.filter((_, each) => each !== place) })}
            >
              ×
            </button>
          </li>
        ))}
        <li>
          <select
            className="input w-auto py-1"
            aria-label={say('rosters:addPersonTo', { name })}
            value=""
            onChange={({ target }) => {
              if (target.value !== '') edit({ people: [...people, target.value] });
            }}
          >
            <option value="">{say(people.length === 0 ? 'rosters:whoHasIt' : 'rosters:addPerson')}</option>
            {ground.people
              .filter(({ active }) => active)
              .map((person) => (
                <option key={person.id} value={person.id}>
                  {person.name}
                </option>
              ))}
          </select>
        </li>
      </ol>
      <Wrong findings={findings} at={at('people')} />
      <div className="mt-2.5 flex flex-wrap items-center gap-x-5 gap-y-2 text-[13.5px]">
        {people.length > 1 ? (
          <span className="flex items-center gap-1.5">
            {say('rosters:passesEvery')}
            <input
              type="number"
              min={1}
              max={100}
              className="input w-16 py-1"
              aria-label={say('rosters:every', { name })}
              value={passes.every}
              onChange={({ target }) =>
                edit({
                  passes: { ...passes, every: Math.min(100, Math.max(1, Math.round(Number(target.value)) || 1)) },
                })
              }
            />
            <select
              className="input w-auto py-1"
              aria-label={say('rosters:everyWhat', { name })}
              value={passes.of}
              onChange={({ target }) =>
                edit({ passes: { ...passes, of: target.value === 'times' ? 'times' : 'weeks' } })
              }
            >
              <option value="weeks">{say('rosters:weeks', { count: passes.every })}</option>
              <option value="times">{say('rosters:times', { count: passes.every })}</option>
            </select>
          </span>
        ) : null}
        <span className="flex items-center gap-1.5">
          {say(people.length > 1 ? 'rosters:firstFrom' : 'rosters:from')}
          <DayField
            name={say('rosters:sinceOf', { name })}
            value={shift.since}
            today={now.slice(0, 10)}
            notBefore={null}
            withTime={false}
            onChange={(since) => edit({ since })}
          />
        </span>
        <span className="flex items-center gap-1.5">
          {say('rosters:until')}
          <DayField
            name={say('rosters:untilOf', { name })}
            value={shift.until ?? ''}
            today={now.slice(0, 10)}
            notBefore={null}
            withTime={false}
            onChange={(until) => edit({ until: until === '' ? undefined : until })}
          />
        </span>
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            className="accent-green"
            checked={shift.skipsClosed ?? false}
            onChange={({ target }) => edit({ skipsClosed: target.checked })}
          />
          {say('rosters:skipsClosed')}
        </label>
      </div>
      <Wrong findings={findings} at={at('passes')} />
      <Wrong findings={findings} at={at('since')} />
      <Wrong findings={findings} at={at('until')} />
    </fieldset>
  );
}

const Clock = ({ label, value, set }: { label: string; value: string; set: (clock: string) => void }) => (
  <input
    className="input w-[4.6rem] px-2 py-1 text-center tabular-nums"
    aria-label={label}
    inputMode="numeric"
    value={value}
    onChange={({ target }) => set(target.value)}
  />
);
