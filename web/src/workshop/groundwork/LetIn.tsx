import { useState } from 'react';
import { DaySpan } from '../../fields/DaySpan.tsx';
import { useDaysMeant } from '../../fields/useDaysMeant.ts';
import { Button } from '../../ui/Button.tsx';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';
import { GroupOnTheSpot } from './NewGroup.tsx';
import { PickMember } from './PickMember.tsx';

type Member = { readonly person: string } | { readonly group: string };

/** Lets one person or group into a group that is chosen here, or somebody chosen here into one group. */
export function LetIn(props: { member: Member } | { group: string; inside: readonly string[] }) {
  const [open, setOpen] = useState(false);
  const [chosen, setChosen] = useState<Member | null>(null);
  const [group, setGroup] = useState('group' in props ? props.group : '');
  const [days, setDays] = useState({ from: '', until: '' });
  const [enter, { isLoading, error, reset }] = groundApi.useEnterGroupMutation();
  const meant = useDaysMeant();
  const member = 'member' in props ? props.member : chosen;
  const send = async (): Promise<void> => {
    if (!member || group === '') return;
    const { from, until } = await meant(days);
    const answer = await enter({
      ...{ key: group, once: crypto.randomUUID() },
      body: { ...member, from: from || null, until: until || null },
    });
    if ('error' in answer) return;
    setOpen(false);
    setChosen(null);
    setDays({ from: '', until: '' });
    if ('member' in props) setGroup('');
  };
  if (!open)
    return (
      <p className="mt-2.5">
        <Button
          onClick={() => {
            reset();
            setOpen(true);
          }}
        >
          {say('member' in props ? 'ground:addToGroup' : 'ground:addMember')}
        </Button>
      </p>
    );
  return (
    <div className="mt-2.5 border-l-[3px] border-green pl-3">
      {'member' in props ? (
        <>
          <GroupChoice chosen={group} choose={setGroup} />
          <p className="mt-1">
            <GroupOnTheSpot made={setGroup} />
          </p>
        </>
      ) : (
        <PickMember inside={props.inside} group={props.group} choose={setChosen} />
      )}
      <div className="mt-2 grid gap-2">
        <DaySpan
          id="entry"
          labels={{ from: say('ground:fromDay'), until: say('ground:untilDay') }}
          days={days}
          set={setDays}
          error={error}
        />
      </div>
      <WholeTrouble error={error} className="mt-2" />
      <p className="mt-3 flex gap-2">
        <Button look="main" disabled={isLoading || !member || group === ''} onClick={() => void send()}>
          {say('ground:add')}
        </Button>
        <Button onClick={() => setOpen(false)}>{say('common:cancel')}</Button>
      </p>
    </div>
  );
}

function GroupChoice({ chosen, choose }: { chosen: string; choose: (key: string) => void }) {
  const { data } = groundApi.useGroupsQuery();
  return (
    <select
      aria-label={say('ground:group')}
      className="input"
      value={chosen}
      onChange={(event) => choose(event.target.value)}
    >
      <option value="">{say('ground:chooseGroup')}</option>
      {data?.groups
        .filter(({ retired }) => !retired)
        .map(({ key, name }) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
    </select>
  );
}
