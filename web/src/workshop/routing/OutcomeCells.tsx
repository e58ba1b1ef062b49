import type { AnswerOf } from '@tolvek/contract';
import { type ApprovalPath, pathName } from '@tolvek/core/approval';
import { type Priority, priorities } from '@tolvek/core/register';
import type { LeavableName, RoutingOutcome } from '@tolvek/core/routing';
import type { ReactNode } from 'react';
import { say, told } from '../../wire/words.ts';
import { howSet, type RowSaid } from './rowEdits.ts';

interface OfRow {
  readonly name: string;
  readonly row: RowSaid;
  readonly set: (outcome: RoutingOutcome) => void;
  /** Opens where it is said how everything is set. */
  readonly more: () => void;
}

/** What stands in a row, or where else it comes from. */
function Here({ name, of, row, more, children }: Omit<OfRow, 'set'> & { of: LeavableName; children: ReactNode }) {
  const how = howSet(row, of);
  if (how === 'here') return children;
  const words = say(how === 'formula' ? 'workshop:byFormula' : 'workshop:byLaterRow');
  return (
    <button
      type="button"
      className="py-1 text-left text-green underline"
      aria-label={`${name}: ${words}`}
      onClick={more}
    >
      {words}
    </button>
  );
}

/** What a row decides: team, priority and working days. */
export function OutcomeCells({ teams, ...of }: OfRow & { teams: AnswerOf<'form'>['groups'] }) {
  const { name, row, set } = of;
  const { outcome } = row;
  const called = {
    team: say('workshop:rowTeam', { name }),
    priority: say('workshop:rowPriority', { name }),
    days: say('workshop:rowDays', { name }),
  };
  return (
    <>
      <td className="border-l border-rule-strong pt-2 pr-2 pl-2">
        <Here {...of} name={called.team} of="team">
          <select
            aria-label={called.team}
            className="input w-auto px-1.5 py-1"
            value={outcome.team}
            onChange={(event) => set({ ...outcome, team: event.target.value })}
          >
            {teams.map((team) => (
              <option key={team.key} value={team.key}>
                {team.name}
              </option>
            ))}
          </select>
        </Here>
      </td>
      <td className="pt-2 pr-2">
        <Here {...of} name={called.priority} of="priority">
          <select
            aria-label={called.priority}
            className="input w-auto px-1.5 py-1"
            value={outcome.priority}
            onChange={(event) => set({ ...outcome, priority: event.target.value as Priority })}
          >
            {priorities.map((priority) => (
              <option key={priority} value={priority}>
                {say(`priorities:${priority}`)}
              </option>
            ))}
          </select>
        </Here>
      </td>
      <td className="pt-2 pr-2">
        <Here {...of} name={called.days} of="workingDays">
          <input
            aria-label={called.days}
            type="number"
            min={0}
            max={250}
            className="input w-16 px-1.5 py-1"
            value={outcome.workingDays}
            onChange={(event) => set({ ...outcome, workingDays: Number(event.target.value) })}
          />
        </Here>
      </td>
    </>
  );
}

/** By which path what a row takes is approved, if at all. */
export function ApprovalOf({ paths, ...of }: OfRow & { paths: readonly ApprovalPath[] }) {
  const { name, row, set } = of;
  const { outcome } = row;
  const called = say('workshop:rowApproval', { name });
  return (
    <span className="flex-none text-[12.5px]">
      <span className="text-soft">{say('workshop:approvedByPath')}</span>{' '}
      <Here {...of} name={called} of="path">
        <select
          aria-label={called}
          className="input w-auto max-w-44 px-1.5 py-0.5 text-[12.5px]"
          value={outcome.path ?? ''}
          onChange={(event) => set({ ...outcome, path: event.target.value || null })}
        >
          <PathOptions paths={paths} chosen={outcome.path} />
        </select>
      </Here>
    </span>
  );
}

/** The paths to choose from; one that is not there any more stays shown until another is chosen. */
const PathOptions = ({ paths, chosen }: { paths: readonly ApprovalPath[]; chosen: string | null }) => (
  <>
    <option value="">{say('workshop:noApproval')}</option>
    {paths.map((path) => (
      <option key={path.id} value={path.id}>
        {told(pathName(path))}
      </option>
    ))}
    {chosen !== null && !paths.some(({ id }) => id === chosen) ? (
      <option value={chosen}>{say('workshop:pathGone')}</option>
    ) : null}
  </>
);
