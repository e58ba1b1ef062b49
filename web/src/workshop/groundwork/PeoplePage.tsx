import type { AnswerOf } from '@tolvek/contract';
import type { ProfileField } from '@tolvek/core/register';
import { useDeferredValue, useState } from 'react';
import { Link, useParams } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { Face, portraitOf } from '../../ui/Face.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say, told } from '../../wire/words.ts';
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
  const [where, setWhere] = useState<Readonly<Record<string, string>>>({});
  const [sort, setSort] = useState('name');
  const looking = useDeferredValue(find);
  const again = (change: () => void): void => {
    change();
    setPages(['']);
  };
  const { data: groups } = groundApi.useGroupsQuery();
  const { data: profile } = groundApi.useProfileQuery();
  const listed = (profile?.fields ?? []).filter(
    (field) => field.listed && !field.retired && (field.of === 'everybody' || field.of === kind),
  );
  const base = kind === 'staff' ? '/workshop/groundwork/people' : '/workshop/groundwork/contacts';
  const asked = Object.entries(where).filter(([, value]) => value !== '');
  const query = {
    ...{ kind, find: looking, group, state: state || undefined, sort },
    where: asked.length > 0 ? new URLSearchParams(asked).toString() : undefined,
  };
  return (
    <div className={`grid min-h-0 ${id ? 'grid-cols-[minmax(0,1fr)_340px] xl:grid-cols-[minmax(0,1fr)_400px]' : ''}`}>
      <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
        <div className="flex flex-wrap items-baseline justify-between gap-3">
          <h1>{say(kind === 'staff' ? 'ground:people' : 'ground:contacts')}</h1>
          <span className="flex items-baseline gap-3">
            <Link to="/workshop/groundwork/profiles" className="text-[13px]">
              {say('ground:toProfiles')}
            </Link>
            <Link
              to={`/workshop/groundwork/import/${kind === 'staff' ? 'people' : 'contacts'}`}
              className="text-[13px]"
            >
              {say('ground:importFile')}
            </Link>
            <a href={`/api/people.csv?kind=${kind}`} download className="text-[13px]">
              {say('ground:exportFile')}
            </a>
            <AddPerson kind={kind} base={base} />
          </span>
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
          {listed.map((field) => (
            <FieldFilter
              key={field.key}
              field={field}
              value={where[field.key] ?? ''}
              choose={(value) => again(() => setWhere({ ...where, [field.key]: value }))}
            />
          ))}
          <select
            aria-label={say('ground:sortBy')}
            className="input w-auto"
            value={sort}
            onChange={(event) => again(() => setSort(event.target.value))}
          >
            {(['name', 'email', 'newest'] as const).map((each) => (
              <option key={each} value={each}>
                {say(`ground:sort.${each}`)}
              </option>
            ))}
            {listed.map(({ key, label }) => (
              <option key={key} value={key}>
                {say('ground:sortByField', { label })}
              </option>
            ))}
          </select>
        </div>
        <PeopleTable
          kind={kind}
          base={base}
          pages={pages}
          fields={listed}
          query={query}
          more={(next) => setPages([...pages, next])}
        />
      </main>
      {id ? <PersonSheet key={id} id={id} base={base} /> : null}
    </div>
  );
}

/** What can be chosen of a field to filter by; null where it can be anything. */
function choicesOf({ type }: ProfileField): readonly { readonly key: string; readonly label: string }[] | null {
  switch (type.kind) {
    case 'choice':
    case 'choices':
      return type.options;
    case 'level':
      return type.levels.map(({ worth, label }) => ({ key: String(worth), label }));
    case 'yes-no':
      return [
        { key: 'true', label: say('common:yes') },
        { key: 'false', label: say('common:no') },
      ];
    default:
      return null;
  }
}

/** A filter by what stands in a field of profiles. */
function FieldFilter({
  field,
  value,
  choose,
}: {
  field: ProfileField;
  value: string;
  choose: (value: string) => void;
}) {
  const choices = choicesOf(field);
  if (!choices) return null;
  const { label } = field;
  return (
    <select aria-label={label} className="input w-auto" value={value} onChange={(event) => choose(event.target.value)}>
      <option value="">{say('ground:anyOf', { label })}</option>
      {choices.map((each) => (
        <option key={each.key} value={each.key}>
          {say('ground:is', { label, value: each.label })}
        </option>
      ))}
    </select>
  );
}

interface TableProps {
  readonly kind: Kind;
  readonly base: string;
  readonly pages: readonly string[];
  /** The fields of profiles that have a column. */
  readonly fields: readonly ProfileField[];
  readonly query: {
    kind: Kind;
    find: string;
    group: string;
    state: State | undefined;
    where: string | undefined;
    sort: string;
  };
  readonly more: (next: string) => void;
}

/** People a hundred at a time; marked ones of the staff are invited together. */
function PeopleTable({ kind, base, pages, fields, query, more }: TableProps) {
  const { id: open } = useParams();
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const heads = [
    say('ground:col.who'),
    ...fields.map(({ label }) => label),
    say('ground:col.groups'),
    ...(kind === 'staff' ? [say('ground:col.rights')] : []),
    say('ground:col.work'),
  ];
  return (
    <>
      <InviteMarked marked={marked} done={() => setMarked(new Set())} />
      <table
        className={`mt-3 w-full border-collapse ${open ? 'max-xl:[&_.of-rights]:hidden [&_.of-profile]:hidden' : ''}`}
      >
        <thead className="sticky -top-5 z-[1] bg-paper">
          <tr className="border-b border-rule-strong text-left text-[11.5px] text-soft">
            {kind === 'staff' ? <th className="w-7" aria-label={say('ground:col.mark')} /> : null}
            {heads.map((head, place) => (
              <th
                key={head}
                scope="col"
                className={`py-1.5 pr-4 font-semibold last:text-right ${head === say('ground:col.rights') ? 'of-rights' : ''} ${place > 0 && place <= fields.length ? 'of-profile' : ''}`}
              >
                {head}
              </th>
            ))}
          </tr>
        </thead>
        {pages.map((after, place) => (
          <PeopleRows
            key={after}
            {...{ base, fields, query, after, marked }}
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
  readonly fields: TableProps['fields'];
  readonly query: TableProps['query'];
  readonly after: string;
  readonly last: boolean;
  readonly columns: number;
  readonly marked: ReadonlySet<string>;
  readonly mark: (id: string) => void;
  readonly more: (next: string) => void;
}

function PeopleRows({ base, fields, query, after, last, columns, marked, mark, more }: RowsProps) {
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
    return foot(query.find || query.group || query.where ? say('ground:nobodyFound') : say('ground:nobodyYet'));
  return (
    <>
      <tbody>
        {data.people.map((person) => (
          <PersonRow
            key={person.id}
            {...{ base, person, fields }}
            isOpen={open === person.id}
            marked={marked.has(person.id)}
            mark={() => mark(person.id)}
          />
        ))}
      </tbody>
      {last && data.next
        ? foot(
            <Button onClick={() => more(data.next ?? '')}>
              {data.total === null ? say('ground:showMoreOfMany') : say('ground:showMore', { total: data.total })}
            </Button>,
          )
        : null}
    </>
  );
}

interface RowProps {
  readonly base: string;
  readonly person: Row;
  readonly fields: TableProps['fields'];
  readonly isOpen: boolean;
  readonly marked: boolean;
  readonly mark: () => void;
}

function PersonRow({ base, person, fields, isOpen, marked, mark }: RowProps) {
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
        <Face src={portraitOf(person.id, person.portrait)} className="float-left mr-2.5 size-9" />
        <Link
          to={`${base}/${person.id}`}
          className={person.active ? 'text-ink no-underline hover:underline' : 'text-soft line-through'}
        >
          {person.name}
        </Link>
        {person.away ? <span className="text-[12.5px] text-soft"> · {say('absences:awayNow')}</span> : null}
        <span className="block text-[12.5px] text-soft">{person.email}</span>
      </td>
      {fields.map(({ key }) => (
        <td key={key} className="of-profile py-2 pr-4">
          {told(person.profile[key] ?? '')}
        </td>
      ))}
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
