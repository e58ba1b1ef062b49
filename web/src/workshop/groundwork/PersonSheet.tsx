import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Absences } from '../../start/Absences.tsx';
import { PictureInput } from '../../start/PictureInput.tsx';
import { Sessions } from '../../start/Sessions.tsx';
import { Button } from '../../ui/Button.tsx';
import { ChoiceLine } from '../../ui/ChoiceLine.tsx';
import { portraitOf } from '../../ui/Face.tsx';
import { TextLine } from '../../ui/TextLine.tsx';
import { Trouble, WholeTrouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { LANGUAGE_NAMES, LANGUAGES, say, told } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';
import { GroundHistory } from './GroundHistory.tsx';
import { HandOver } from './HandOver.tsx';
import { LetIn } from './LetIn.tsx';
import { Merge } from './Merge.tsx';
import { ProfileFields } from './ProfileFields.tsx';

type Opened = AnswerOf<'person'>;
type Role = Opened['role'];
const ROLES: readonly Role[] = ['member', 'coordinator', 'administrator'];

/** Somebody beside the list: who they are, the groups they are in and by which way, and what hangs on them. */
export function PersonSheet({ id, base }: { id: string; base: string }) {
  const { data, error, refetch } = groundApi.usePersonQuery({ id });
  return (
    <aside className="min-h-0 overflow-auto border-l border-rule-strong bg-sheet px-[22px] pt-5 pb-10">
      {error ? <Trouble error={error} again={refetch} /> : null}
      {data ? <OpenPerson key={`${id} ${data.version}`} opened={data} base={base} /> : null}
    </aside>
  );
}

function OpenPerson({ opened, base }: { opened: Opened; base: string }) {
  useTitle(opened.name);
  const isStaff = opened.kind === 'staff';
  return (
    <>
      <div className="flex items-baseline justify-between gap-3">
        <h2 className="text-[22px]">{opened.name}</h2>
        <Link to={base} className="text-[13px]">
          {say('ground:close')}
        </Link>
      </div>
      <p className="text-soft">
        {say(isStaff ? 'ground:isStaff' : 'ground:isContact')}
        {opened.active ? '' : ` · ${say('ground:access.inactive')}`}
        {opened.namesake ? ` · ${say('ground:hasNamesake')}` : ''}
      </p>
      <PersonForm opened={opened} />
      <TheirPortrait opened={opened} />
      {isStaff ? <TheirAbsences opened={opened} /> : null}
      {isStaff ? <TheirProofs opened={opened} /> : null}
      {isStaff && opened.signsIn ? <TheirSessions opened={opened} /> : null}
      <h3 className="section-head mt-7">{say('ground:inGroups')}</h3>
      <ul>
        {opened.ways.map(({ key, name, ways }) => (
          <li key={key} className="border-b border-rule py-1.5">
            <Link to={`/workshop/groundwork/groups/${key}`} className="no-underline hover:underline">
              {name}
            </Link>
            {ways.map((way) => (
              <span key={JSON.stringify(way)} className="block text-[12.5px] text-soft">
                {way.through.length > 0
                  ? say('ground:because', { groups: way.through })
                  : say(way.byRule ? 'ground:byRule' : 'ground:directly')}{' '}
                {told(way.days)}
              </span>
            ))}
          </li>
        ))}
        {opened.ways.length === 0 ? <li className="py-1.5 text-soft">{say('ground:inNoGroup')}</li> : null}
      </ul>
      <LetIn member={{ person: opened.id }} />
      {isStaff ? (
        <>
          <h3 className="section-head mt-7">{say('ground:mayDo')}</h3>
          <ul>
            {opened.rights.map(({ right, words, ways }) => (
              <li key={right} className="border-b border-rule py-1.5">
                {told(words)}
                <span className="block text-[12.5px] text-soft">{ways.map(wayInWords).join(' · ')}</span>
              </li>
            ))}
            {opened.rights.length === 0 ? <li className="py-1.5 text-soft">{say('ground:mayNothing')}</li> : null}
          </ul>
          {opened.elsewhere.map(({ key, name, more, less }) => (
            <div key={key}>
              <h4 className="mt-3 font-semibold">
                <Link to={`/workshop/groundwork/rights?register=${key}`}>{say('rights:inRegister', { name })}</Link>
              </h4>
              <ul>
                {more.map(({ right, words, ways }) => (
                  <li key={right} className="border-b border-rule py-1.5">
                    {say('rights:also', { right: told(words) })}
                    <span className="block text-[12.5px] text-soft">{ways.map(wayInWords).join(' · ')}</span>
                  </li>
                ))}
                {less.map(({ right, words }) => (
                  <li key={right} className="border-b border-rule py-1.5">
                    {say('rights:notHere', { right: told(words) })}
                  </li>
                ))}
              </ul>
            </div>
          ))}
        </>
      ) : null}
      <h3 className="section-head mt-7">{say('ground:hangsOn')}</h3>
      <ul>
        {opened.hangs.map(({ words, to }) => (
          <li key={told(words)} className="border-b border-rule py-1.5">
            {to ? <Link to={to}>{told(words)}</Link> : told(words)}
          </li>
        ))}
        {opened.hangs.length === 0 ? <li className="py-1.5 text-soft">{say('ground:nothingHangs')}</li> : null}
      </ul>
      {isStaff && (opened.active || opened.openWork > 0) ? <HandOver opened={opened} /> : null}
      <Merge opened={opened} />
      <GroundHistory lines={opened.history} />
    </>
  );
}

function TheirPortrait({ opened: { id, name, portrait } }: { opened: Opened }) {
  const [put, { isLoading }] = groundApi.useSetPortraitMutation();
  const set = async (picture: string | null): Promise<void> => {
    const done = await put({ id, body: { picture } });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
  };
  return (
    <>
      <h3 className="section-head mt-7">{say('pictures:portrait')}</h3>
      <PictureInput
        src={portraitOf(id, portrait)}
        name={say('pictures:portraitOf', { name })}
        box={{ width: 192, height: 192, fills: true }}
        busy={isLoading}
        set={(picture) => void set(picture)}
      />
    </>
  );
}

function TheirAbsences({ opened }: { opened: Opened }) {
  const { id } = opened;
  const [add, { isLoading: isAdding, error }] = groundApi.useAddAbsenceMutation();
  const [end, { isLoading: isEnding }] = groundApi.useEndAbsenceMutation();
  return (
    <>
      <h3 className="section-head mt-7">{say('absences:absences')}</h3>
      <Absences
        {...{ ...opened, person: id, error }}
        busy={isAdding || isEnding}
        add={async (body) => !('error' in (await add({ id, once: crypto.randomUUID(), body })))}
        end={(absence) => void end({ id, absence }).then(() => toast(say('absences:absenceEnded')))}
      />
    </>
  );
}

/** Where they are signed in: one session ended, or all. */
function TheirSessions({ opened: { id, sessions } }: { opened: Opened }) {
  const [end, { isLoading }] = groundApi.useEndTheirSessionMutation();
  const [endAll, { isLoading: isEndingAll }] = groundApi.useSignOutPersonMutation();
  const endOne = async (session: string): Promise<void> => {
    const done = await end({ id, session });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
    else toast(say('ground:sessionEnded'));
  };
  const signOut = async (): Promise<void> => {
    const done = await endAll({ id });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
    else toast(say('ground:signedOut', { count: done.data?.ended ?? 0 }));
  };
  return (
    <>
      <h3 className="section-head mt-7">{say('ground:sessions')}</h3>
      {sessions.length === 0 ? <p className="py-1.5 text-soft">{say('ground:notSignedIn')}</p> : null}
      <Sessions sessions={sessions} busy={isLoading} end={(session) => void endOne(session)} />
      {sessions.length > 1 ? (
        <p className="mt-3">
          <Button disabled={isEndingAll} onClick={() => void signOut()}>
            {say('ground:signOutPerson')}
          </Button>
        </p>
      ) : null}
    </>
  );
}

/** How they prove who they are, besides a password; a lost code is removed. */
function TheirProofs({ opened: { id, code, passkeys, providers } }: { opened: Opened }) {
  const [end, { isLoading }] = groundApi.useEndTheirCodeMutation();
  const remove = async (): Promise<void> => {
    const done = await end({ id });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
    else toast(say('ground:theirCodeEnded'));
  };
  return (
    <>
      {providers.length > 0 ? (
        <p className="mt-2 text-[13px] text-soft">{say('ground:signsInByToo', { names: providers })}</p>
      ) : null}
      {code || passkeys > 0 ? (
        <p className="mt-2 flex flex-wrap items-baseline gap-3 text-[13px] text-soft">
          {[
            code ? say('ground:codeIsOn') : '',
            passkeys > 0 ? say('ground:hasPasskeys', { count: passkeys }) : '',
          ].join(' ')}
          <Button disabled={isLoading} onClick={() => void remove()}>
            {say('ground:endTheirCode')}
          </Button>
        </p>
      ) : null}
    </>
  );
}

/** By which way a right comes to somebody. */
function wayInWords(way: Opened['rights'][number]['ways'][number]): string {
  if (way.by === 'group') return say('ground:byGroup', { group: way.group });
  return say(way.by === 'everyone' ? 'ground:byEveryone' : 'ground:byPerson');
}

function PersonForm({ opened }: { opened: Opened }) {
  const { id, version, kind, name, email, language, role, active } = opened;
  const [person, setPerson] = useState({ name, email, language, role });
  const [typed, setTyped] = useState(opened.typed);
  const [save, { isLoading, error }] = groundApi.useChangePersonMutation();
  const [invite, { isLoading: isInviting }] = groundApi.useInviteMutation();
  const set = (change: Partial<typeof person>): void => setPerson((before) => ({ ...before, ...change }));
  const isStaff = kind === 'staff';
  const learnt = Object.fromEntries(
    Object.entries(typed).filter(([key, value]) => JSON.stringify(value) !== JSON.stringify(opened.typed[key] ?? null)),
  );
  const changes = {
    ...(person.name === name ? {} : { name: person.name }),
    ...(person.email === email ? {} : { email: person.email }),
    ...(person.language === language ? {} : { language: person.language }),
    ...(person.role === role ? {} : { role: person.role }),
    ...(Object.keys(learnt).length > 0 ? { profile: learnt } : {}),
  };
  const isChanged = Object.keys(changes).length > 0;
  const put = async (body: Parameters<typeof save>[0]['body']): Promise<void> => {
    const saved = await save({ id, version, body });
    if (!('error' in saved)) toast(say('ground:personSaved'));
  };
  const sendInvitation = async (): Promise<void> => {
    const sent = await invite({ body: { people: [id] } });
    if ('error' in sent) toast.error(refusalInWords(problemOf(sent.error)));
    else toast(say('ground:invited', { count: sent.data?.sent ?? 0 }));
  };
  // What comes from a directory is changed there.
  const isKept = opened.source === 'directory';
  const others = opened.addresses.filter((address) => address !== email);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void put(changes);
      }}
      noValidate
    >
      {isKept ? <p className="mt-2 text-[13px] text-soft">{say('directory:personNote')}</p> : null}
      <TextLine
        id="edit-name"
        label={say('ground:set.name')}
        error={error}
        field="name"
        disabled={isKept}
        value={person.name}
        change={(typed) => set({ name: typed })}
      />
      <TextLine
        id="edit-email"
        label={say('ground:set.email')}
        {...(others.length > 0 ? { hint: say('ground:otherAddresses', { addresses: others }) } : {})}
        error={error}
        field="email"
        type="email"
        disabled={isKept}
        value={person.email}
        change={(typed) => set({ email: typed })}
      />
      <ChoiceLine
        id="edit-language"
        label={say('ground:set.language')}
        error={error}
        field="language"
        options={[
          { key: '', label: say('ground:languageOfDesk') },
          ...LANGUAGES.map((key) => ({ key, label: LANGUAGE_NAMES[key] })),
        ]}
        value={person.language ?? ''}
        choose={(language) => set({ language: language || null })}
      />
      {isStaff ? (
        <ChoiceLine
          id="edit-role"
          label={say('ground:set.role')}
          hint={say(`ground:roleMeans.${person.role}`)}
          error={error}
          field="role"
          disabled={!opened.mayGiveRole}
          options={ROLES.map((key) => ({ key, label: say(`ground:role.${key}`) }))}
          value={person.role}
          choose={(role) => set({ role })}
        />
      ) : null}
      {isStaff && !opened.mayGiveRole ? (
        <p className="mt-1 text-[12.5px] text-soft">{say('ground:whoGivesRoles')}</p>
      ) : null}
      <ProfileFields kind={kind} isKept={isKept} typed={typed} set={setTyped} error={error} />
      <WholeTrouble error={error} />
      <p className="mt-4 flex flex-wrap gap-2">
        <Button look="main" type="submit" disabled={!isChanged || isLoading}>
          {say('workshop:saveChanges')}
        </Button>
        {isStaff && active && !opened.signsIn ? (
          <Button disabled={isInviting || isChanged} onClick={() => void sendInvitation()}>
            {say(opened.invited === null ? 'ground:inviteOne' : 'ground:inviteAgain')}
          </Button>
        ) : null}
        <Button look={active ? 'refuse' : 'plain'} disabled={isLoading} onClick={() => void put({ active: !active })}>
          {say(active ? 'ground:makeInactive' : 'ground:makeActive')}
        </Button>
      </p>
      {isStaff && active ? (
        <p className="mt-1 text-[12.5px] text-soft">
          {opened.signsIn
            ? say('ground:signsIn')
            : opened.invited === null
              ? say('ground:access.none')
              : say('ground:access.invited', { at: opened.invited })}
        </p>
      ) : null}
    </form>
  );
}
