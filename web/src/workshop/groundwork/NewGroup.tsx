import { type ReactElement, useState } from 'react';
import { Chosen } from '../../fields/Chosen.tsx';
import { Button } from '../../ui/Button.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';
import { GroupFields } from './GroupFields.tsx';
import { PickMember } from './PickMember.tsx';

interface NewGroupProps {
  readonly trigger: ReactElement;
  readonly isTeam: boolean;
  /** What becomes of it: its key, once it is there with everybody in it. */
  readonly made: (key: string, name: string) => void;
}

const NOBODY: readonly { readonly key: string; readonly label: string }[] = [];

/** Makes a group on the spot, with whoever is in it. */
export function NewGroup({ trigger, isTeam, made }: NewGroupProps) {
  const [open, setOpen] = useState(false);
  const [group, setGroup] = useState({ name: '', about: '', isTeam });
  const [members, setMembers] = useState(NOBODY);
  const [once, setOnce] = useState(() => crypto.randomUUID());
  const [add, { isLoading, error, reset }] = groundApi.useAddGroupMutation();
  const [enter, { isLoading: isEntering, error: kept }] = groundApi.useEnterGroupMutation();
  const send = async (): Promise<void> => {
    const added = await add({ once, body: group });
    if (!('data' in added) || !added.data) return;
    const { key } = added.data;
    for (const { key: person } of members) {
      const entered = await enter({ key, once: crypto.randomUUID(), body: { person, from: null, until: null } });
      // Who could not be let in is said; the group is there, and those before are in it.
      if ('error' in entered) return;
    }
    setOnce(crypto.randomUUID());
    setOpen(false);
    setGroup({ name: '', about: '', isTeam });
    setMembers(NOBODY);
    made(key, group.name);
  };
  return (
    <DialogFrame open={open} onOpenChange={setOpen} reset={reset} title={say('ground:addGroupTitle')} trigger={trigger}>
      <GroupFields id="new" group={group} set={setGroup} error={error} explained />
      <div className="mt-4">
        <Chosen
          items={members}
          disabled={false}
          drop={(key) => setMembers(members.filter((each) => each.key !== key))}
        />
        <PickMember
          key={members.length}
          onlyPeople
          kind="staff"
          label={say('ground:firstMembers')}
          inside={members.map(({ key }) => key)}
          group=""
          choose={(member, label) => {
            if (member && 'person' in member) setMembers([...members, { key: member.person, label }]);
          }}
        />
      </div>
      <WholeTrouble error={error ?? kept} />
      <p className="mt-5">
        <Button look="main" disabled={isLoading || isEntering} onClick={() => void send()}>
          {say('ground:addGroup')}
        </Button>
      </p>
    </DialogFrame>
  );
}

/** The small way to a new group, beside a picker of groups. */
export const GroupOnTheSpot = ({
  isTeam = false,
  made,
}: {
  isTeam?: boolean;
  made: (key: string, name: string) => void;
}) => (
  <NewGroup
    isTeam={isTeam}
    made={made}
    trigger={
      <button type="button" className="min-h-6 text-[13px] text-green underline">
        {say('ground:newGroup')}
      </button>
    }
  />
);
