import type { AnswerOf } from '@tolvek/contract';
import { type ApprovalPath, pathName } from '@tolvek/core/approval';
import { type Field, type Priority, priorities } from '@tolvek/core/register';
import type { RoutingOutcome } from '@tolvek/core/routing';
import { say, told } from '../wire/words.ts';
import { HandlerCell } from './HandlerCell.tsx';

/** What a row decides: team, priority, working days, by which path it is approved, if at all, and how its handler is found. */
export function OutcomeCells({
  name,
  outcome,
  teams,
  paths,
  people,
  fields,
  set,
}: {
  name: string;
  outcome: RoutingOutcome;
  teams: AnswerOf<'form'>['groups'];
  paths: readonly ApprovalPath[];
  people: AnswerOf<'form'>['people'];
  fields: readonly Field[];
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
      <td className="pt-2 pr-2">
        <select
          aria-label={say('workshop:rowApproval', { name })}
          className="input w-auto max-w-44 px-1.5 py-1"
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
      </td>
      <td className="pt-2 pr-2">
        <HandlerCell
          name={say('workshop:rowHandler', { name })}
          rule={outcome.handler}
          {...{ people, fields }}
          set={(handler) => {
            const { handler: _, ...others } = outcome;
            set(handler ? { ...others, handler } : others);
          }}
        />
      </td>
    </>
  );
}
