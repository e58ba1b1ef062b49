import { wallClockAt } from '@tolvek/core/deadline';
import { dutiesBetween, MOST_SWAPS } from '@tolvek/core/roster';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { saveFile } from '../../ui/saveFile.ts';
import { say } from '../../wire/words.ts';
import { FilePick } from '../FilePick.tsx';
import { type RosterDraft, rosterOf, withSwaps } from './rosterDraft.ts';
import type { Ground } from './useRosterAhead.ts';

/** From today on a year is taken out and in. */
const YEAR = 366 * 86_400_000;

interface RosterFileProps {
  readonly draft: RosterDraft;
  readonly change: (edit: (before: RosterDraft) => RosterDraft) => void;
  readonly ground: Ground;
  readonly now: string;
  readonly nameOf: (id: string) => string;
}

/** A roster as an iCalendar file: out for a year; in as duties besides, which are looked at like any other change. */
export function RosterFile({ draft, change, ground, now, nameOf }: RosterFileProps) {
  const [unknown, setUnknown] = useState<readonly string[]>([]);
  const [left, setLeft] = useState(0);
  const at = Date.parse(now);
  const calendar = ground.calendars.find(({ key }) => key === draft.calendar);
  const save = async (): Promise<void> => {
    if (!calendar) return;
    const { dutiesAsICalendar } = await import('../../ui/dutiesAsICalendar.ts');
    const duties = dutiesBetween(rosterOf(draft), calendar, at, at + YEAR);
    const told = duties.map(({ person, from, to }) => ({
      ...{ from, to, who: nameOf(person), uid: `${from}-${person}@tolvek` },
    }));
    const name = `${draft.name.replace(/[^\p{L}\p{N}]+/gu, '-') || 'roster'}.ics`;
    saveFile(name, 'text/calendar', dutiesAsICalendar(draft.name, told, at));
  };
  const read = async (file: File): Promise<void> => {
    try {
      const { dutiesFromICalendar } = await import('./rosterFile.ts');
      const people = ground.people.filter(({ active }) => active);
      const found = dutiesFromICalendar(await file.text(), { people, zone: draft.zone, from: at, to: at + YEAR });
      const clock = (moment: number): string => wallClockAt(moment, draft.zone);
      const swaps = found.duties.map(({ person, from, to }) => ({
        ...{ id: crypto.randomUUID(), from: clock(from), until: clock(to), instead: null, by: person, note: file.name },
      }));
      const room = MOST_SWAPS - draft.swaps.length;
      change((before) => withSwaps(before, swaps));
      setUnknown(found.unknown);
      setLeft(Math.max(0, swaps.length - room));
      toast(say('rosters:read', { count: Math.min(room, swaps.length) }));
    } catch {
      toast.error(say('ground:noICalendar'));
    }
  };
  return (
    <>
      <h2 className="section-head mt-7">{say('rosters:file')}</h2>
      <p className="mt-1.5 text-soft">{say('rosters:fileHint')}</p>
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <FilePick name={say('rosters:import')} accept=".ics,text/calendar" onChoose={read} />
        <Button onClick={() => void save()}>{say('rosters:export')}</Button>
      </div>
      {left > 0 ? (
        <p role="alert" className="mt-2 text-brick">
          {say('rosters:noRoom', { count: left, most: MOST_SWAPS })}
        </p>
      ) : null}
      {unknown.length > 0 ? (
        <p role="alert" className="mt-2 text-brick">
          {say('rosters:unknownPeople', { names: unknown })}
        </p>
      ) : null}
    </>
  );
}
