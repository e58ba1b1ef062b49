import type { AnswerOf } from '@tolvek/contract';
import { type Priority, priorities } from '@tolvek/core/register';
import type { RoutingOutcome } from '@tolvek/core/routing';
import { say } from '../wire/words.ts';

/** What a row decides: team, priority, working days, and whether it has to be approved. */
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
      <td className="pt-2 pr-2 text-center">
        <input
          aria-label={say('workshop:rowApproval', { name })}
          type="checkbox"
          className="accent-green"
          checked={outcome.needsApproval}
          onChange={(event) => set({ ...outcome, needsApproval: event.target.checked })}
        />
      </td>
    </>
  );
}
