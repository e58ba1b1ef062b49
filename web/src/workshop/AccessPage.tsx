import type { AnswerOf } from '@tolvek/contract';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { DeskMoment } from '../wire/DeskMoment.tsx';
import { say, told } from '../wire/words.ts';
import { AccessPlan } from './access/AccessPlan.tsx';
import { useBinder } from './binder.ts';
import { workshopApi } from './endpoints.ts';
import { WayDialog } from './WayDialog.tsx';

type Form = AnswerOf<'form'>;

/**
 * Who may see and change which field: the plan of the form’s register as it is written and in force, what was allowed
 * beside it, and what became of it. The plan in force protects every release.
 */
export function AccessPage() {
  const { form } = useBinder();
  return (
    <>
      <p className="text-soft">{say('workshop:access.intro')}</p>
      {form.waysInForce.length > 0 ? <WaysInForce form={form} /> : null}
      <AccessPlan register={form.register.key} />
      <h2 className="section-head mt-7">{say('workshop:access.allowed')}</h2>
      <ul>
        {form.allowed.map((way) => (
          <Allowed key={way.id} way={way} formKey={form.key} />
        ))}
        <li className="border-b border-rule py-2.5">
          <span className="text-[15.5px]">{say('workshop:access.takenTitle')}</span>
          <p className="text-soft">{say('workshop:access.takenText')}</p>
        </li>
      </ul>
      {form.planHistory.length > 0 ? (
        <>
          <h2 className="section-head mt-7">{say('workshop:access.history')}</h2>
          <ul>
            {form.planHistory.map((event) => (
              <li key={event.at + told(event.words)} className="border-b border-rule py-2">
                {told(event.words)}
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
    <h2 className="font-semibold">{say('workshop:access.further')}</h2>
    <p>{say('workshop:access.furtherText')}</p>
    <ul className="mt-1">
      {form.waysInForce.map((way) => (
        <li key={told(way.message)} className="flex items-baseline gap-4 border-t border-rule py-1.5">
          <span className="flex-1">{told(way.message)}</span>
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
        <span className="text-[15.5px]">{told(way.words)}</span>
        <p className="text-soft">
          {say(way.what === 'value' ? 'workshop:access.valueRead' : 'workshop:access.somethingRead', {
            field: way.source,
          })}{' '}
          {way.stands ? '' : `${say('workshop:access.wayGone')} `}
          {say('workshop:access.permittedBy', { by: way.by, at: way.at, reason: way.reason })}
        </p>
        {error ? <Trouble error={error} /> : null}
      </div>
      <Button
        disabled={isLoading}
        onClick={async () => {
          const ended = await end({ key: formKey, id: way.id });
          if (!('error' in ended)) toast(say('workshop:access.ended'));
        }}
      >
        {say('workshop:access.end')}
      </Button>
    </li>
  );
}
