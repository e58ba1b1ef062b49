import type { AnswerOf } from '@tolvek/contract';
import { changedDuties } from '@tolvek/core/roster';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { spanOn } from '../../ui/dutyWeeks.ts';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { DeleteGround } from '../groundwork/DeleteGround.tsx';
import { groundApi } from '../groundwork/endpoints.ts';
import { NotInForce } from '../groundwork/NotInForce.tsx';
import { RetiredBox } from '../groundwork/RetiredBox.tsx';
import { WhatWasSet } from '../groundwork/States.tsx';
import { RosterFields } from './RosterFields.tsx';
import type { RosterDraft } from './rosterDraft.ts';
import { type Ahead, type Ground, useRosterAhead, WEEKS } from './useRosterAhead.ts';

type Opened = AnswerOf<'roster'>;

const draftOf = ({ key: _, ...roster }: Opened['roster']): RosterDraft => roster;

interface EditorProps {
  readonly opened: Opened;
  readonly ground: Ground;
  /** ISO 8601. */
  readonly now: string;
  /** What was changed of rosters and is not in force yet, by key: it is there still when one comes back. */
  readonly kept: Kept;
}

export type Kept = Map<string, { readonly version: number; readonly draft: RosterDraft }>;

/** A roster that is in force: what a change alters stands under it, and it is put in force in one step; an earlier state comes back the same way. */
export function RosterEditor({ opened, ground, now, kept }: EditorProps) {
  const [was] = useState(() => draftOf(opened.roster));
  const [draft, setDraft] = useState(() => {
    const before = kept.get(opened.key);
    return before?.version === opened.version ? before.draft : was;
  });
  useEffect(() => {
    kept.set(opened.key, { version: opened.version, draft });
  }, [kept, opened.key, opened.version, draft]);
  const before = useRosterAhead(was, ground, now);
  const ahead = useRosterAhead(draft, ground, now);
  const [put, { isLoading, error }] = groundApi.useChangeRosterMutation();
  const isChanged = JSON.stringify(draft) !== JSON.stringify(was);
  const isWrong = ahead.findings.some(({ severity }) => severity === 'error');
  const nameOf = (id: string): string =>
    ground.people.find((each) => each.id === id)?.name ?? say('rosters:somebodyGone');
  const save = async (note: string): Promise<void> => {
    const saved = await put({ key: opened.key, version: opened.version, body: { roster: draft, note } });
    if ('data' in saved && saved.data) toast(say('rosters:saved'));
  };
  return (
    <div className="max-w-[66rem]">
      <p className="mt-3 text-soft">
        {opened.askedBy.length > 0 ? say('rosters:askedBy', { forms: opened.askedBy }) : say('rosters:askedByNone')}
      </p>
      <RosterFields {...{ draft, ground, ahead, error, now }} change={setDraft} />
      <p className="mt-4">
        <RetiredBox label={say('rosters:retired')} draft={draft} change={setDraft} error={error} />
      </p>
      <p className="mt-2">
        <DeleteGround at={{ kind: 'roster', key: opened.key }} then="/workshop/groundwork/rosters" />
      </p>
      <WholeTrouble error={error} className="mt-4" />
      {isChanged ? (
        <NotInForce disabled={isLoading || isWrong} save={(note) => void save(note)} undo={() => setDraft(was)}>
          {isWrong ? (
            <p className="text-brick">{say('rosters:correctFirst')}</p>
          ) : (
            <Effects {...{ before, ahead, nameOf, now }} zone={draft.zone} />
          )}
        </NotInForce>
      ) : null}
      <WhatWasSet states={opened.states} back={({ roster }) => setDraft(draftOf(roster))} />
    </div>
  );
}

interface EffectsProps {
  readonly before: Ahead;
  readonly ahead: Ahead;
  readonly nameOf: (id: string) => string;
  readonly now: string;
  readonly zone: string;
}

function fromTo(begins: number, ends: number, zone: string): string {
  const { isOneDay, ...span } = spanOn(begins, ends, zone);
  return say(isOneDay ? 'rosters:fromToDay' : 'rosters:fromTo', span);
}

/** Changes that are listed. */
const LISTED = 5;

/** Who is on duty otherwise in the weeks ahead, and how many gaps there are then. */
function Effects({ before, ahead, nameOf, now, zone }: EffectsProps) {
  const changes = changedDuties(before.duties, ahead.duties).filter(({ to }) => to > Date.parse(now));
  const names = (ids: readonly string[]): readonly string[] =>
    ids.length === 0 ? [say('rosters:nobody')] : ids.map(nameOf);
  if (changes.length === 0) return <p>{say('rosters:changesNothing', { count: WEEKS })}</p>;
  const gaps = ahead.gaps.length - before.gaps.length;
  return (
    <>
      <p>
        {say('rosters:changes', { count: changes.length, weeks: WEEKS })}{' '}
        {gaps === 0 ? null : say(gaps > 0 ? 'rosters:moreGaps' : 'rosters:fewerGaps', { count: Math.abs(gaps) })}
      </p>
      <ul className="mt-1 max-h-40 overflow-auto text-[13.5px]">
        {changes.slice(0, LISTED).map(({ from, to, before: was, after }) => (
          <li key={from}>
            <span className="tabular-nums">{fromTo(from, to, zone)}</span>:{' '}
            {say('rosters:thenBefore', { names: names(after), before: names(was) })}
          </li>
        ))}
        {changes.length > LISTED ? (
          <li className="text-soft">{say('rosters:moreChanges', { count: changes.length - LISTED })}</li>
        ) : null}
      </ul>
    </>
  );
}
