import type { AnswerOf } from '@tolvek/contract';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { DeskMoment } from '../wire/DeskMoment.tsx';
import { useBinder } from './binder.ts';
import { workshopApi } from './endpoints.ts';
import { WayDialog } from './WayDialog.tsx';

type Form = AnswerOf<'form'>;

const LEVELS = { hidden: 'hidden', read: 'reads', write: 'writes' } as const;

/**
 * Who may see which field, in sentences and as the grid that comes of them; what was allowed beside
 * it, and what became of the plan. The plan in force protects every release.
 */
export function AccessPage() {
  const { form } = useBinder();
  const seats = form.grid[0]?.cells.map((cell) => cell.who) ?? [];
  return (
    <>
      <p className="text-soft">
        The access plan belongs to the register and is always the one in force, whatever release a request came by.
        Among the rules that apply, the strictest wins. A field that is made from others is read by whoever may read all
        of them.
      </p>
      {form.waysInForce.length > 0 ? <WaysInForce form={form} /> : null}
      <h2 className="section-head mt-5">Rules</h2>
      {form.access.length === 0 ? (
        <p className="py-2.5">No rule protects a field: everybody of its desk reads all of it.</p>
      ) : null}
      <ul>
        {form.access.map((rule) => (
          <li key={rule.name} className="border-b border-rule py-2.5">
            <span className="text-[15.5px]">{rule.name}</span>
            <p className="text-soft">
              {rule.fields.join(', ')}:{' '}
              {rule.level === 'hidden' ? 'hidden from' : rule.level === 'read' ? 'readable by' : 'writable by'}{' '}
              {rule.audience}
            </p>
          </li>
        ))}
      </ul>
      <h2 className="section-head mt-7">Allowed on purpose</h2>
      <ul>
        {form.allowed.map((way) => (
          <Allowed key={way.id} way={way} formKey={form.key} />
        ))}
        <li className="border-b border-rule py-2.5">
          <span className="text-[15.5px]">“Taken” is said of an answer that may be given only once</span>
          <p className="text-soft">
            Always, where no rule above protects the field: the asker typed it, and learns no more than that another
            request has it.
          </p>
        </li>
      </ul>
      <h2 className="section-head mt-7">What comes of them</h2>
      <table className="mt-1 w-full border-collapse">
        <thead>
          <tr className="border-b border-rule-strong text-left text-[11.5px] text-soft">
            <th scope="col" className="py-1.5 pr-3 font-semibold">
              Field
            </th>
            {seats.map((who) => (
              <th key={who} scope="col" className="py-1.5 pr-3 font-semibold">
                {who}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {form.grid.map((row) => (
            <tr key={row.field} className="border-b border-rule">
              <th scope="row" className="py-1.5 pr-3 text-left font-normal">
                {row.label}
              </th>
              {row.cells.map((cell) => (
                <td
                  key={cell.who}
                  title={cell.rule}
                  className={`py-1.5 pr-3 ${cell.level === 'hidden' ? 'font-semibold text-brick' : cell.level === 'read' ? 'text-ink' : 'text-soft'}`}
                >
                  {LEVELS[cell.level]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {form.planHistory.length > 0 ? (
        <>
          <h2 className="section-head mt-7">What happened to the plan</h2>
          <ul>
            {form.planHistory.map((event) => (
              <li key={event.at + event.words} className="border-b border-rule py-2">
                {event.words}
                <p className="text-soft">
                  {event.who}, <DeskMoment at={event.at} />
                </p>
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </>
  );
}

/** What the release in force tells too freely since the plan changed. */
const WaysInForce = ({ form }: { form: Form }) => (
  <section className="mt-4 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-2">
    <h2 className="font-semibold">The release in force goes further than the plan</h2>
    <p>
      It was released before the plan was as it is now. What can be withheld is withheld from whoever may not read it;
      the next release has to be without these ways.
    </p>
    <ul className="mt-1">
      {form.waysInForce.map((way) => (
        <li key={way.message} className="flex items-baseline gap-4 border-t border-rule py-1.5">
          <span className="flex-1">{way.message}</span>
          <WayDialog finding={way} formKey={form.key} />
        </li>
      ))}
    </ul>
  </section>
);

function Allowed({ way, formKey }: { way: Form['allowed'][number]; formKey: string }) {
  const [end, { isLoading, error }] = workshopApi.useEndWayMutation();
  return (
    <li className="grid grid-cols-[1fr_auto] items-start gap-x-4 border-b border-rule py-2.5">
      <div>
        <span className="text-[15.5px]">{way.words}</span>
        <p className="text-soft">
          {way.what === 'value'
            ? `What “${way.source}” holds may be read there`
            : `Something of “${way.source}” may be told there, not what it holds`}
          {way.stands ? '' : '; neither the draft nor the release in force has this way any more'}. Allowed by {way.by},{' '}
          <DeskMoment at={way.at} />: “{way.reason}”
        </p>
        {error ? <Trouble error={error} /> : null}
      </div>
      <Button
        disabled={isLoading}
        onClick={async () => {
          const ended = await end({ key: formKey, id: way.id });
          if (!('error' in ended)) toast('It is no longer allowed, and withheld from now on.');
        }}
      >
        End it
      </Button>
    </li>
  );
}
