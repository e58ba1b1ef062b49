import { wallClockAt } from '@tolvek/core/deadline';
import { HANDS_OVER, NEEDED } from '@tolvek/core/roster';
import { ChoiceLine } from '../../ui/ChoiceLine.tsx';
import { TextLine } from '../../ui/TextLine.tsx';
import { ZoneLine } from '../../ui/ZoneLine.tsx';
import { say } from '../../wire/words.ts';
import { RosterFile } from './RosterFile.tsx';
import { RosterWeeks } from './RosterWeeks.tsx';
import type { RosterDraft } from './rosterDraft.ts';
import { Shifts } from './Shifts.tsx';
import { Swaps } from './Swaps.tsx';
import type { Ahead, Ground } from './useRosterAhead.ts';
import { Wrong } from './Wrong.tsx';

interface FieldsProps {
  readonly draft: RosterDraft;
  readonly change: (edit: (before: RosterDraft) => RosterDraft) => void;
  readonly ground: Ground;
  readonly ahead: Ahead;
  readonly error: unknown;
  /** ISO 8601. */
  readonly now: string;
}

/** All that is set of a roster, under the weeks that follow from it. */
export function RosterFields({ draft, change, ground, ahead, error, now }: FieldsProps) {
  const { findings, gaps, duties } = ahead;
  const nameOf = (id: string): string =>
    ground.people.find((each) => each.id === id)?.name ?? say('rosters:somebodyGone');
  const set = (edit: Partial<RosterDraft>): void => change((before) => ({ ...before, ...edit }));
  return (
    <>
      {duties.length > 0 ? (
        <div className="mt-5">
          {gaps.length > 0 ? (
            <p role="status" className="mb-2 border-l-[3px] border-brick bg-brick-wash px-3 py-1.5">
              {say('rosters:gapsAhead', { count: gaps.length, at: wallClockAt(gaps[0]?.from ?? 0, draft.zone) })}
            </p>
          ) : null}
          <RosterWeeks {...{ ahead, now, nameOf }} zone={draft.zone} />
        </div>
      ) : null}
      <h2 className="section-head mt-7">{say('rosters:shifts')}</h2>
      <p className="mt-1.5 text-soft">{say('rosters:shiftsHint')}</p>
      <Shifts {...{ draft, change, ground, findings, now, nameOf }} />
      <h2 className="section-head mt-7">{say('rosters:swaps')}</h2>
      <p className="mt-1.5 text-soft">{say('rosters:swapsHint')}</p>
      <Swaps {...{ draft, change, ground, findings, now, nameOf }} />
      <h2 className="section-head mt-7">{say('rosters:theRest')}</h2>
      <div className="grid items-start gap-x-8 sm:grid-cols-2">
        <div>
          <TextLine
            id="roster-name"
            label={say('rosters:name')}
            error={error}
            field="name"
            value={draft.name}
            change={(name) => set({ name })}
          />
          <Wrong {...{ findings }} at="name" />
        </div>
        <ZoneLine
          id="roster-zone"
          label={say('settings:theZone')}
          error={error}
          field="zone"
          value={draft.zone}
          choose={(zone) => set({ zone })}
        />
        <ChoiceLine
          id="roster-calendar"
          label={say('rosters:calendar')}
          hint={say('rosters:calendarHint')}
          error={error}
          field="calendar"
          options={ground.calendars
            .filter(({ key, retired }) => !retired || key === draft.calendar)
            .map(({ key, name }) => ({ key, label: name }))}
          value={draft.calendar}
          choose={(calendar) => set({ calendar })}
        />
        <ChoiceLine
          id="roster-needed"
          label={say('rosters:needed')}
          hint={say('rosters:neededHint')}
          error={error}
          field="needed"
          options={NEEDED.map((key) => ({ key, label: say(`rosters:needed.${key}`) }))}
          value={draft.needed}
          choose={(needed) => set({ needed })}
        />
      </div>
      <div className="sm:w-1/2 sm:pr-4">
        <ChoiceLine
          id="roster-hands-over"
          label={say('rosters:handsOver')}
          hint={say('rosters:handsOverHint')}
          error={error}
          field="handsOver"
          options={(['none', ...HANDS_OVER] as const).map((key) => ({ key, label: say(`rosters:handsOver.${key}`) }))}
          value={draft.handsOver ?? 'none'}
          choose={(chosen) =>
            change(({ handsOver: _, ...before }) => (chosen === 'none' ? before : { ...before, handsOver: chosen }))
          }
        />
      </div>
      {(['onlyOnDuty', 'tells'] as const).map((flag) => (
        <p key={flag} className="mt-3">
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="accent-green"
              checked={draft[flag] ?? false}
              onChange={({ target }) =>
                change(({ [flag]: _, ...before }) => (target.checked ? { ...before, [flag]: true } : before))
              }
            />
            {say(`rosters:${flag}`)}
          </label>
        </p>
      ))}
      <RosterFile {...{ draft, change, ground, now, nameOf }} />
    </>
  );
}
