import { Link } from 'react-router';
import { Trouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { say } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';
import { groundApi } from './endpoints.ts';

/** Every register with the forms that ask into it. */
export function RegistersPage() {
  useTitle(say('ground:registers'));
  const { data, error, refetch } = workshopApi.useFormsQuery();
  const registers = new Map<
    string,
    { name: string; forms: { key: string; title: string }[]; requests: number; things: boolean }
  >();
  for (const form of data?.forms ?? []) {
    const known = registers.get(form.registerKey) ?? {
      ...{ name: form.register, forms: [], requests: 0, things: form.holds === 'things' },
    };
    registers.set(form.registerKey, {
      ...known,
      forms: [...known.forms, { key: form.key, title: form.title }],
      requests: known.requests + form.requests,
    });
  }
  const shown = [...registers].sort(([, a], [, b]) => a.name.localeCompare(b.name));
  return (
    <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
      <div className="max-w-[58rem]">
        <h1>{say('ground:registers')}</h1>
        <p className="text-soft">{say('ground:registersHint')}</p>
        {error ? <Trouble error={error} again={refetch} /> : null}
        <table className="mt-4 w-full border-collapse">
          <thead>
            <tr className="border-b border-rule-strong text-left text-[11.5px] text-soft">
              {[say('ground:col.register'), say('ground:col.forms'), say('ground:rights'), say('ground:col.holds')].map(
                (head) => (
                  <th key={head} scope="col" className="py-1.5 pr-4 font-semibold last:text-right">
                    {head}
                  </th>
                ),
              )}
            </tr>
          </thead>
          <tbody>
            {shown.map(([key, register]) => (
              <tr key={key} className="border-b border-rule">
                <td className="py-2.5 pr-4">
                  <Link to={`/workshop/registers/${key}`} className="subject text-[16px] no-underline hover:underline">
                    {register.name}
                  </Link>
                </td>
                <td className="py-2.5 pr-4">
                  {register.forms.map((form, place) => (
                    <span key={form.key}>
                      {place > 0 ? ', ' : ''}
                      <Link to={`/workshop/${form.key}`}>{form.title}</Link>
                    </span>
                  ))}
                </td>
                <td className="py-2.5 pr-4">
                  <RightsOf register={key} name={register.name} />
                </td>
                <td className="py-2.5 pr-4 text-right">
                  {say(register.things ? 'ground:holdsThings' : 'ground:holdsRequests', { count: register.requests })}
                </td>
              </tr>
            ))}
            {data && shown.length === 0 ? (
              <tr>
                <td colSpan={4} className="py-4 text-soft">
                  {say('ground:noRegisterYet')} <Link to="/workshop/new">{say('ground:step.formGo')}</Link>
                </td>
              </tr>
            ) : null}
          </tbody>
        </table>
      </div>
    </main>
  );
}

/** How the rights of a register stand to those of the desk, as the way to them. */
function RightsOf({ register, name }: { register: string; name: string }) {
  const { data } = groundApi.useRightsQuery();
  const found = data?.registers.find(({ key }) => key === register);
  if (!found) return null;
  const words = found.apart
    ? say('rights:ownOnly')
    : found.differences > 0
      ? say('rights:differsIn', { count: found.differences })
      : say('rights:sameAsDesk');
  return (
    <Link
      to={`/workshop/groundwork/rights?register=${register}`}
      aria-label={say('rights:linkTo', { name, words })}
      className="no-underline hover:underline"
    >
      {words}
    </Link>
  );
}
