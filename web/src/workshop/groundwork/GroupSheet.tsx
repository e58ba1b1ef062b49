import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { Trouble, WholeTrouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say, told } from '../../wire/words.ts';
import { DeleteGround } from './DeleteGround.tsx';
import { groundApi } from './endpoints.ts';
import { GroundHistory } from './GroundHistory.tsx';
import { type GroupDraft, GroupFields } from './GroupFields.tsx';
import { GroupRule } from './GroupRule.tsx';
import { LetIn } from './LetIn.tsx';

type Opened = AnswerOf<'group'>;
type Entry = Opened['entries'][number];

/** A group beside the list: what it is for, who is in it, and what refers to it. */
export function GroupSheet({ group }: { group: string }) {
  const { data, error, refetch } = groundApi.useGroupQuery({ key: group });
  return (
    <aside className="min-h-0 overflow-auto border-l border-rule-strong bg-sheet px-[22px] pt-5 pb-10">
      {error ? <Trouble error={error} again={refetch} /> : null}
      {data ? <OpenGroup key={`${group} ${data.version}`} opened={data} /> : null}
    </aside>
  );
}

function OpenGroup({ opened }: { opened: Opened }) {
  useTitle(opened.name);
  const inside = opened.entries.map(({ member }) => ('person' in member ? member.person : member.group));
  return (
    <>
      <div className="flex items-baseline justify-between gap-3">
        <h2 className="text-[22px]">{opened.name}</h2>
        <Link to="/workshop/groundwork/groups" className="text-[13px]">
          {say('ground:close')}
        </Link>
      </div>
      <p className="text-soft">
        {say('workshop:members', { count: opened.members })}
        {opened.within.length > 0 ? ` · ${say('ground:isIn', { groups: opened.within.map(({ name }) => name) })}` : ''}
      </p>
      <GroupForm opened={opened} />
      {opened.source === 'local' ? (
        <>
          <h3 className="section-head mt-7">{say('ground:rule')}</h3>
          <GroupRule opened={opened} />
        </>
      ) : null}
      <h3 className="section-head mt-7">{say('ground:whoIsIn')}</h3>
      <ul>
        {opened.entries.map((entry) => (
          <EntryLine key={entry.id} group={opened.key} entry={entry} />
        ))}
        {opened.entries.length === 0 ? <li className="py-1.5 text-soft">{say('ground:nobodyIn')}</li> : null}
      </ul>
      <LetIn group={opened.key} inside={inside} />
      <h3 className="section-head mt-7">{say('ground:usedIn')}</h3>
      <ul>
        {opened.uses.map(({ title, at, to }) => (
          <li key={`${told(title)} ${told(at)}`} className="border-b border-rule py-1.5">
            <Link to={to}>{told(title)}</Link> <span className="text-soft">{told(at)}</span>
          </li>
        ))}
        {opened.uses.length === 0 ? <li className="py-1.5 text-soft">{say('ground:usedNowhere')}</li> : null}
      </ul>
      <GroundHistory lines={opened.history} />
    </>
  );
}

function EntryLine({ group, entry }: { group: string; entry: Entry }) {
  const [end, { isLoading }] = groundApi.useLeaveGroupMutation();
  const { member, from, until } = entry;
  const remove = async (): Promise<void> => {
    const done = await end({ key: group, entry: entry.id });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
  };
  const days =
    from && until
      ? say('ground:fromUntil', { from, until })
      : from
        ? say('ground:since', { from })
        : until
          ? say('ground:until', { until })
          : '';
  return (
    <li className="flex items-baseline justify-between gap-3 border-b border-rule py-1.5">
      <span className={entry.now ? '' : 'text-soft'}>
        {'person' in member ? (
          <Link
            to={`/workshop/groundwork/people/${member.person}`}
            className={member.active ? 'text-ink no-underline hover:underline' : 'text-soft line-through'}
          >
            {member.name}
          </Link>
        ) : (
          <Link to={`/workshop/groundwork/groups/${member.group}`} className="no-underline hover:underline">
            {say('ground:allOfGroup', { group: member.name })}
          </Link>
        )}
        <span className="block text-[12.5px] text-soft">
          {['person' in member ? member.email : '', days, entry.now ? '' : say('ground:notNow')]
            .filter(Boolean)
            .join(' · ')}
        </span>
      </span>
      {entry.source === 'local' ? (
        <button
          type="button"
          disabled={isLoading}
          className="text-[13px] text-green underline underline-offset-[3px]"
          aria-label={say('ground:removeMember', { name: member.name })}
          onClick={() => void remove()}
        >
          {say('ground:remove')}
        </button>
      ) : (
        <span className="text-[12.5px] text-soft">
          {say(entry.source === 'rule' ? 'ground:byRule' : 'ground:fromDirectory')}
        </span>
      )}
    </li>
  );
}

function GroupForm({ opened }: { opened: Opened }) {
  const { key, version, name, about, mailbox, isTeam, retired } = opened;
  const [group, setGroup] = useState<GroupDraft>({ name, about, mailbox, isTeam });
  const [save, { isLoading, error }] = groundApi.useChangeGroupMutation();
  const isChanged =
    group.name !== name || group.about !== about || group.mailbox !== mailbox || group.isTeam !== isTeam;
  const put = async (body: Parameters<typeof save>[0]['body']): Promise<void> => {
    const saved = await save({ key, version, body });
    if (!('error' in saved)) toast(say('ground:groupSaved'));
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void put(group);
      }}
      noValidate
    >
      {opened.source === 'directory' ? (
        <p className="mt-2 text-[13px] text-soft">{say('directory:groupNote')}</p>
      ) : null}
      <GroupFields id="edit" isKept={opened.source === 'directory'} group={group} set={setGroup} error={error} />
      <WholeTrouble error={error} />
      <p className="mt-4 flex flex-wrap gap-2">
        <Button look="main" type="submit" disabled={!isChanged || isLoading}>
          {say('workshop:saveChanges')}
        </Button>
        {opened.source === 'local' ? (
          <Button disabled={isLoading} onClick={() => void put({ retired: !retired })}>
            {say(retired ? 'ground:useAgain' : 'ground:retire')}
          </Button>
        ) : null}
      </p>
      {opened.source === 'local' ? (
        <p className="mt-2">
          <DeleteGround at={{ kind: 'group', key: opened.key }} then="/workshop/groundwork/groups" />
        </p>
      ) : null}
      {!retired && opened.uses.length > 0 ? (
        <p className="mt-1 text-[12.5px] text-soft">{say('ground:retireKeeps', { count: opened.uses.length })}</p>
      ) : null}
    </form>
  );
}
