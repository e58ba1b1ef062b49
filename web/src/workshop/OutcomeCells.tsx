import type { AnswerOf } from '@tolvek/contract';
import { type ApprovalPath, pathName } from '@tolvek/core/approval';
import { type Priority, priorities } from '@tolvek/core/register';
import type { RoutingOutcome } from '@tolvek/core/routing';
import { say, told } from '../wire/words.ts';

/** What a row decides: team, priority and working days. */
export function OutcomeCells({
  name,
  outcome,
  teams,
  set,
}: {
  name: string;
  outcome: RoutingOutcome;
  teams: AnswerOf<'form'>['groups'];
  set: (outcome: RoutingOutcome) => void;
}) {
  return (
    <>
      <td className="border-l border-rule-strong pt-2 pr-2 pl-2">
        <select
          aria-label={say('workshop:rowTeam', { name })}
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
      </td>
      <td className="pt-2 pr-2">
        <select
          aria-label={say('workshop:rowPriority', { name })}
          className="input w-auto px-1.5 py-1"
          value={outcome.priority}
          onChange={(event) => set({ ...outcome, priority: event.target.value as Priority })}
        >
          {priorities.map((priority) => (
            <option key={priority}>{priority}</option>
          ))}
        </select>
      </td>
      <td className="pt-2 pr-2">
        <input
          aria-label={say('workshop:rowDays', { name })}
          type="number"
          min={0}
          max={250}
          className="input w-16 px-1.5 py-1"
          value={outcome.workingDays}
          onChange={(event) => set({ ...outcome, workingDays: Number(event.target.value) })}
        />
      </td>
    </>
  );
}

/** By which path what a row takes is approved, if at all. */
export const ApprovalOf = ({
  name,
  outcome,
  paths,
  set,
}: {
  name: string;
  outcome: RoutingOutcome;
  paths: readonly ApprovalPath[];
  set: (outcome: RoutingOutcome) => void;
}) => (
  <span className="flex-none text-[12.5px]">
    <span className="text-soft">{say('workshop:approvedByPath')}</span>{' '}
    <select
      aria-label={say('workshop:rowApproval', { name })}
      className="input w-auto max-w-44 px-1.5 py-0.5 text-[12.5px]"
      value={outcome.path ?? ''}
      onChange={(event) => set({ ...outcome, path: event.target.value || null })}
    >
      <option value="">{say('workshop:noApproval')}</option>
      {paths.map((path) => (
        <option key={path.id} value={path.id}>
          {told(pathName(path))}
        </option>
      ))}
      {outcome.path !== null && !paths.some(({ id }) => id === outcome.path) ? (
        <option value={outcome.path}>{say('workshop:pathGone')}</option>
      ) : null}
    </select>
  </span>
);
