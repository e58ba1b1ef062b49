import type { AnswerOf } from '@tolvek/contract';
import { useDeferredValue, useState } from 'react';
import { Link, useParams } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say } from '../../wire/words.ts';
import { AddPerson } from './AddPerson.tsx';
import { groundApi } from './endpoints.ts';
import { PersonSheet } from './PersonSheet.tsx';

type Kind = 'staff' | 'contact';
type Row = AnswerOf<'people'>['people'][number];
type State = 'active' | 'inactive' | 'not-invited';

export const PeoplePage = () => <PeopleOf kind="staff" />;
export const ContactsPage = () => <PeopleOf kind="contact" />;

/** Staff or contacts: a list that is searched and filtered, and whoever is open beside it. */
function PeopleOf({ kind }: { kind: Kind }) {
  useTitle(say(kind === 'staff' ? 'ground:people' : 'ground:contacts'));
  const { id } = useParams();
  const [find, setFind] = useState('');
  const [group, setGroup] = useState('');
  const [state, setState] = useState<State | ''>('active');
  const [pages, setPages] = useState<readonly string[]>(['']);
  const looking = useDeferredValue(find);
  const again = (change: () => void): void => {
    change();
    setPages(['']);
  };
  const { data: groups } = groundApi.useGroupsQuery();
  const base = kind === 'staff' ? '/workshop/groundwork/people' : '/workshop/groundwork/contacts';
  const query = { kind, find: looking, group, state: state || undefined };
  return (
    <div className={`grid min-h-0 ${id ? 'grid-cols-[minmax(0,1fr)_340px] xl:grid-cols-[minmax(0,1fr)_400px]' : ''}`}>
      <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
        <div className="flex flex-wrap items-baseline justify-between gap-3">
          <h1>{say(kind === 'staff' ? 'ground:people' : 'ground:contacts')}</h1>
          <AddPerson kind={kind} base={base} />
        </div>
        <p className="text-soft">{say(kind === 'staff' ? 'ground:peopleHint' : 'ground:contactsHint')}</p>
        <div className="mt-3 flex flex-wrap gap-2">
          <input
            type="search"
            aria-label={say('ground:findPeople')}
            placeholder={say('ground:findPeople')}
            className="input min-w-56 flex-1"
            value={find}
            onChange={(event) => again(() => setFind(event.target.value))}
          />
          <select
            aria-label={say('ground:inGroup')}
            className="input w-auto"
            value={group}
            onChange={(event) => again(() => setGroup(event.target.value))}
          >
            <option value="">{say('ground:anyGroup')}</option>
            {groups?.groups.map((each) => (
              <option key={each.key} value={each.key}>
                {each.name}
              </option>
            ))}
          </select>
          <select
            aria-label={say('ground:state')}
            className="input w-auto"
            value={state}
            onChange={(event) => again(() => setState(event.target.value as State | ''))}
          >
            <option value="active">{say('ground:state.active')}</option>
            {kind === 'staff' ? <option value="not-invited">{say('ground:state.notInvited')}</option> : null}
            <option value="inactive">{say('ground:state.inactive')}</option>
            <option value="">{say('ground:state.all')}</option>
          </select>
        </div>
        <PeopleTable kind={kind} base={base} pages={pages} query={query} more={(next) => setPages([...pages, next])} />
      </main>
      {id ? <PersonSheet key={id} id={id} base={base} /> : null}
    </div>
  );
}

interface TableProps {
  readonly kind: Kind;
  readonly base: string;
  readonly pages: readonly string[];
  readonly query: { kind: Kind; find: string; group: string; state: State | undefined };
  readonly more: (next: string) => void;
}

/** People a hundred at a time; marked ones of the staff are invited together. */
function PeopleTable({ kind, base, pages, query, more }: TableProps) {
  const { id: open } = useParams();
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const heads = [
    say('ground:col.who'),
    say('ground:col.groups'),
    ...(kind === 'staff' ? [say('ground:col.rights')] : []),
    say('ground:col.work'),
  ];
  return (
    <>
      <InviteMarked marked={marked} done={() => setMarked(new Set())} />
      <table className={`mt-3 w-full border-collapse ${open ? 'max-xl:[&_.of-rights]:hidden' : ''}`}>
        <thead className="sticky -top-5 z-[1] bg-paper">
          <tr className="border-b border-rule-strong text-left text-[11.5px] text-soft">
            {kind === 'staff' ? <th className="w-7" aria-label={say('ground:col.mark')} /> : null}
            {heads.map((head) => (
              <th
                key={head}
                scope="col"
                className={`py-1.5 pr-4 font-semibold last:text-right ${head === say('ground:col.rights') ? 'of-rights' : ''}`}
              >
                {head}
              </th>
            ))}
          </tr>
        </thead>
        {pages.map((after, place) => (
          <PeopleRows
            key={after}
            {...{ base, query, after, marked }}
            last={place === pages.length - 1}
            more={more}
            columns={heads.length + 1}
            mark={(id) => {
              const next = new Set(marked);
              if (!next.delete(id)) next.add(id);
              setMarked(next);
            }}
          />
        ))}
      </table>
    </>
  );
}

interface RowsProps {
  readonly base: string;
  readonly query: TableProps['query'];
  readonly after: string;
  readonly last: boolean;
  readonly columns: number;
  readonly marked: ReadonlySet<string>;
  readonly mark: (id: string) => void;
  readonly more: (next: string) => void;
}

function PeopleRows({ base, query, after, last, columns, marked, mark, more }: RowsProps) {
  const { id: open } = useParams();
  const { data, error, refetch } = groundApi.usePeopleQuery({ query: { ...query, after } });
  const foot = (content: React.ReactNode) => (
    <tbody>
      <tr>
        <td colSpan={columns} className="py-4 text-soft">
          {content}
        </td>
      </tr>
    </tbody>
  );
  if (error) return foot(<Trouble error={error} again={refetch} />);
  if (!data) return foot(say('desk:oneMoment'));
  if (data.people.length === 0)
    return foot(query.find || query.group ? say('ground:nobodyFound') : say('ground:nobodyYet'));
  return (
    <>
      <tbody>
        {data.people.map((person) => (
          <PersonRow
            key={person.id}
            {...{ base, person }}
            isOpen={open === person.id}
            marked={marked.has(person.id)}
            mark={() => mark(person.id)}
          />
        ))}
      </tbody>
      {last && data.next
        ? foot(<Button onClick={() => more(data.next ?? '')}>{say('ground:showMore', { total: data.total })}</Button>)
        : null}
    </>
  );
}

interface RowProps {
  readonly base: string;
  readonly person: Row;
  readonly isOpen: boolean;
  readonly marked: boolean;
  readonly mark: () => void;
}

function PersonRow({ base, person, isOpen, marked, mark }: RowProps) {
  const isStaff = person.kind === 'staff';
  return (
    <tr className={`border-b border-rule ${isOpen ? 'bg-sheet shadow-[inset_3px_0_var(--green)]' : ''}`}>
      {isStaff ? (
        <td className="w-9 pl-1">
          {person.active && !person.signsIn ? (
            <label className="mr-1.5 inline-flex size-[26px] cursor-pointer items-center justify-center align-middle">
              <input
                type="checkbox"
                className="size-[16px] accent-green"
                aria-label={say('ground:markPerson', { name: person.name, email: person.email })}
                checked={marked}
                onChange={mark}
              />
            </label>
          ) : null}
        </td>
      ) : null}
      <td className="py-2 pr-4">
        <Link
          to={`${base}/${person.id}`}
          className={person.active ? 'text-ink no-underline hover:underline' : 'text-soft line-through'}
        >
          {person.name}
        </Link>
        <span className="block text-[12.5px] text-soft">{person.email}</span>
      </td>
      <td className="py-2 pr-4">{person.groups.map(({ name }) => name).join(', ') || '–'}</td>
      {isStaff ? (
        <td className="of-rights py-2 pr-4">
          {person.role === 'member' ? '' : say(`ground:role.${person.role}`)}
          <span className="block text-[12.5px] text-soft">{accessOf(person)}</span>
        </td>
      ) : null}
      <td className="py-2 pr-4 text-right">
        {person.openWork > 0 && !person.active ? (
          <strong className="text-brick">{say('ground:toHandOver', { count: person.openWork })}</strong>
        ) : (
          person.openWork || '–'
        )}
      </td>
    </tr>
  );
}

/** How far somebody of the staff can come in. */
function accessOf({ active, signsIn, invited }: Row): string {
  if (!active) return say('ground:access.inactive');
  if (signsIn) return '';
  return invited === null ? say('ground:access.none') : say('ground:access.invited', { at: invited });
}

/** Says how many emails would go, and sends them only then. */
function InviteMarked({ marked, done }: { marked: ReadonlySet<string>; done: () => void }) {
  const [invite, { isLoading }] = groundApi.useInviteMutation();
  if (marked.size === 0) return null;
  const send = async (): Promise<void> => {
    const sent = await invite({ body: { people: [...marked] } });
    if ('error' in sent) toast.error(refusalInWords(problemOf(sent.error)));
    else toast(say('ground:invited', { count: sent.data?.sent ?? 0 }));
    done();
  };
  return (
    <p className="mt-3 flex flex-wrap items-center gap-3 border-l-[3px] border-green bg-green-wash px-3 py-2">
      <span>{say('ground:inviteHint')}</span>
      <Button look="main" disabled={isLoading} onClick={() => void send()}>
        {say('ground:inviteMarked', { count: marked.size })}
      </Button>
      <Button onClick={done}>{say('ground:unmark')}</Button>
    </p>
  );
}
