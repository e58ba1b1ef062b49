import { say } from '../../wire/words.ts';
import { GroupOnTheSpot } from '../groundwork/NewGroup.tsx';

interface GroupsChosenProps {
  readonly groups: readonly { readonly key: string; readonly name: string }[];
  readonly chosen: readonly string[];
  readonly toggle: (key: string) => void;
  /** What they are chosen for: the name of the box that adds one. */
  readonly label: string;
}

/** Groups that are chosen, each with a way out, and a box that adds one, or makes it on the spot. */
export const GroupsChosen = ({ groups, chosen, toggle, label }: GroupsChosenProps) => (
  <span className="mt-1 flex flex-wrap items-center gap-2">
    {chosen.map((key) => {
      const name = groups.find((group) => group.key === key)?.name ?? key;
      return (
        <span key={key} className="flex items-center gap-1.5 border border-rule-strong bg-paper py-0.5 pr-1 pl-2.5">
          {name}
          <button
            type="button"
            className="px-1 text-soft hover:text-brick"
            aria-label={say('accessPlan:takeOut', { name })}
            onClick={() => toggle(key)}
          >
            ×
          </button>
        </span>
      );
    })}
    <select
      className="input w-auto"
      aria-label={label}
      value=""
      onChange={(event) => {
        if (event.target.value !== '') toggle(event.target.value);
      }}
    >
      <option value="">{say('accessPlan:addGroup')}</option>
      {groups
        .filter(({ key }) => !chosen.includes(key))
        .map(({ key, name }) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
    </select>
    <GroupOnTheSpot isTeam={false} made={toggle} />
  </span>
);
