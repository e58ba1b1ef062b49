import { wallClockAt } from '@tolvek/core/deadline';
import type { Swap } from '@tolvek/core/roster';
import { useState } from 'react';
import { DayField } from '../../fields/DateInput.tsx';
import { Button } from '../../ui/Button.tsx';
import { say } from '../../wire/words.ts';
import { isOver, type RosterDraft, withoutSwap, withSwaps } from './rosterDraft.ts';
import type { PartProps } from './Shifts.tsx';
import type { Ground } from './useRosterAhead.ts';
import { Wrong } from './Wrong.tsx';

/** Swaps that are shown until all are asked for. */
const FIRST = 8;

/** The swaps of a roster that are not over, and another one. */
export function Swaps({ draft, change, ground, findings, now, nameOf }: PartProps) {
  const [all, setAll] = useState(false);
  const clock = wallClockAt(Date.parse(now), draft.zone);
  const coming = draft.swaps.filter((swap) => !isOver(swap, clock)).sort((a, b) => (a.from < b.from ? -1 : 1));
  const over = draft.swaps.length - coming.length;
  const shown = all ? coming : coming.slice(0, FIRST);
  return (
    <>
      {shown.length > 0 ? (
        <ul className="mt-1">
          {shown.map((swap) => (
            <li key={swap.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1.5">
              <span className="tabular-nums">{say('rosters:fromTo', { from: swap.from, to: swap.until })}</span>
              <span className="min-w-0 flex-1">
                {swapInWords(swap, nameOf)} <span className="text-soft">{swap.note}</span>
                {['from', 'until', 'by'].map((part) => (
                  <Wrong key={part} findings={findings} at={`swaps ${swap.id} ${part}`} />
                ))}
              </span>
              <button
                type="button"
                className="text-[13px] text-green underline"
                aria-label={say('rosters:removeSwapOf', { from: swap.from })}
                onClick={() => change((before) => withoutSwap(before, swap.id))}
              >
                {say('rosters:removeSwap')}
              </button>
            </li>
          ))}
        </ul>
      ) : null}
      <p className="mt-1.5 flex flex-wrap gap-x-5 text-[13px] text-soft">
        {coming.length > shown.length ? (
          <button type="button" className="text-green underline" onClick={() => setAll(true)}>
            {say('rosters:allSwaps', { count: coming.length })}
          </button>
        ) : null}
        {over > 0 ? (
          <>
            {say('rosters:swapsOver', { count: over })}
            <button
              type="button"
              className="text-green underline"
              onClick={() =>
                change((before) => ({ ...before, swaps: before.swaps.filter((swap) => !isOver(swap, clock)) }))
              }
            >
              {say('rosters:removeOver')}
            </button>
          </>
        ) : null}
      </p>
      <AddSwap {...{ draft, ground, now, nameOf }} add={(swap) => change((before) => withSwaps(before, [swap]))} />
    </>
  );
}

function swapInWords({ instead, by }: Swap, nameOf: (id: string) => string): string {
  if (instead === null) return say('rosters:besides', { by: nameOf(by ?? '') });
  if (by === null) return say('rosters:nobodyFor', { instead: nameOf(instead) });
  return say('rosters:insteadOf', { by: nameOf(by), instead: nameOf(instead) });
}

interface AddSwapProps {
  readonly draft: RosterDraft;
  readonly ground: Ground;
  readonly now: string;
  readonly nameOf: (id: string) => string;
  readonly add: (swap: Swap) => void;
}

const NONE = '';

/** Another swap: for how long, who is free, and who is on duty. */
function AddSwap({ draft, ground, now, nameOf, add }: AddSwapProps) {
  const [typed, setTyped] = useState({ from: '', until: '', instead: NONE, by: NONE, note: '' });
  const set = (edit: Partial<typeof typed>): void => setTyped((before) => ({ ...before, ...edit }));
  const today = wallClockAt(Date.parse(now), draft.zone);
  const onIt = [...new Set(draft.shifts.flatMap(({ people }) => people))];
  const others = ground.people.filter(({ id, active }) => active && !onIt.includes(id));
  const isWhole = /T\d\d:\d\d$/.test(typed.from) && /T\d\d:\d\d$/.test(typed.until) && typed.until > typed.from;
  const isReady = isWhole && typed.instead !== typed.by;
  const moments = [
    ['from', 'rosters:swapFrom'],
    ['until', 'rosters:swapUntil'],
  ] as const;
  return (
    <div className="mt-3 flex flex-wrap items-end gap-3">
      {moments.map(([part, label]) => (
        <span key={part}>
          <label htmlFor={`swap-${part}`} className="block text-[13px] text-soft">
            {say(label)}
          </label>
          <DayField
            id={`swap-${part}`}
            value={typed[part]}
            today={today}
            notBefore={null}
            withTime
            onChange={(value) => set({ [part]: value })}
          />
        </span>
      ))}
      <span>
        <label htmlFor="swap-by" className="block text-[13px] text-soft">
          {say('rosters:onDuty')}
        </label>
        <select
          id="swap-by"
          className="input w-auto"
          value={typed.by}
          onChange={({ target }) => set({ by: target.value })}
        >
          <option value={NONE}>{say('rosters:nobody')}</option>
          {onIt.map((id) => (
            <option key={id} value={id}>
              {nameOf(id)}
            </option>
          ))}
          <optgroup label={say('rosters:othersOfStaff')}>
            {others.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </optgroup>
        </select>
      </span>
      <span>
        <label htmlFor="swap-instead" className="block text-[13px] text-soft">
          {say('rosters:inPlaceOf')}
        </label>
        <select
          id="swap-instead"
          className="input w-auto"
          value={typed.instead}
          onChange={({ target }) => set({ instead: target.value })}
        >
          <option value={NONE}>{say('rosters:inAddition')}</option>
          {[...new Set([...onIt, ...draft.swaps.flatMap(({ by }) => by ?? [])])].map((id) => (
            <option key={id} value={id}>
              {nameOf(id)}
            </option>
          ))}
        </select>
      </span>
      <span className="min-w-40 flex-1">
        <label htmlFor="swap-note" className="block text-[13px] text-soft">
          {say('rosters:swapNote')}
        </label>
        <input
          id="swap-note"
          className="input"
          value={typed.note}
          onChange={({ target }) => set({ note: target.value })}
        />
      </span>
      <Button
        disabled={!isReady}
        onClick={() => {
          const { instead, by, ...rest } = typed;
          add({ id: crypto.randomUUID(), ...rest, instead: instead || null, by: by || null });
          set({ from: '', until: '', note: '' });
        }}
      >
        {say('rosters:addSwap')}
      </Button>
    </div>
  );
}
