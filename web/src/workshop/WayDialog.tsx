import type { AnswerOf } from '@tolvek/contract';
import { applyFix, fixInWords } from '@tolvek/core/form';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { problemOf } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import type { Change } from './editing.ts';
import { workshopApi } from './endpoints.ts';

type Finding = AnswerOf<'form'>['findings'][number];

interface WayProps {
  readonly finding: Finding;
  readonly formKey: string;
  /** Absent where the finding is of the release in force, which nothing can change. */
  readonly change?: Change | undefined;
}

/** The way a value takes to somebody who may not read it, and what can be done about it. */
export function WayDialog({ finding, formKey, change }: WayProps) {
  const [open, setOpen] = useState(false);
  if (!finding.way || !finding.allow) return null;
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button type="button" className="whitespace-nowrap text-green underline">
          {say('workshop:way.how')}
        </button>
      }
      title={say('workshop:way.howTitle')}
    >
      <ol className="mt-4">
        {finding.way.map((step, index) => (
          <li key={told(step)} className="grid grid-cols-[26px_1fr] border-b border-rule py-2">
            <span className="font-serif text-[14px] text-soft">{index + 1}</span>
            <span className={index === (finding.way?.length ?? 0) - 1 ? 'font-semibold text-brick' : ''}>
              {told(step)}
            </span>
          </li>
        ))}
      </ol>
      {change ? (
        <Mending finding={finding} formKey={formKey} change={change} done={() => setOpen(false)} />
      ) : (
        <p className="mt-4 text-soft">
          {say(
            finding.page === 'routing'
              ? 'workshop:way.rowsWithheld'
              : finding.page === 'approval'
                ? 'workshop:way.stepStands'
                : 'workshop:way.withheld',
          )}
        </p>
      )}
      <Allowing finding={finding} formKey={formKey} done={() => setOpen(false)} />
    </DialogFrame>
  );
}

function Mending({
  finding,
  formKey,
  change,
  done,
}: WayProps & { readonly change: Change; readonly done: () => void }) {
  const { data: form } = workshopApi.useFormQuery({ key: formKey });
  const [protect, { isLoading, error }] = workshopApi.useProtectAlikeMutation();
  const { fix, protect: alike } = finding;
  const labelOf = (key: string): string =>
    form?.draft.fields.find((field) => field.key === key)?.label ??
    form?.grid.find((row) => row.field === key)?.label ??
    key;
  return (
    <div className="mt-5">
      <h3 className="font-semibold">{say('workshop:way.correct')}</h3>
      <div className="mt-2 flex flex-wrap gap-2">
        {fix ? (
          <Button
            look="main"
            onClick={() => {
              change((before) => applyFix(before, fix, told));
              done();
            }}
          >
            {told(fixInWords(fix))}
          </Button>
        ) : null}
        {alike ? (
          <Button
            disabled={isLoading}
            onClick={async () => {
              const made = await protect({ key: formKey, body: alike });
              if ('error' in made) return;
              toast(say('workshop:way.protected', { field: labelOf(alike.field), like: labelOf(alike.source) }));
              done();
            }}
          >
            {say('workshop:way.protect', { field: labelOf(alike.field), like: labelOf(alike.source) })}
          </Button>
        ) : null}
      </div>
      {alike ? <p className="mt-2 text-soft">{say('workshop:way.protectHint')}</p> : null}
      {error ? (
        <div className="mt-3">
          <Trouble error={error} />
        </div>
      ) : null}
    </div>
  );
}

/** Allows the way on purpose, with a reason; only for who may read what it tells of. */
function Allowing({ finding, formKey, done }: Pick<WayProps, 'finding' | 'formKey'> & { readonly done: () => void }) {
  const { data: form } = workshopApi.useFormQuery({ key: formKey });
  const [allow, { isLoading, error }] = workshopApi.useAllowWayMutation();
  const [once] = useState(() => crypto.randomUUID());
  const [tries, setTries] = useState(0);
  const [reason, setReason] = useState('');
  const { allow: way } = finding;
  if (!form || !way) return null;
  const label = form.grid.find((row) => row.field === way.source)?.label ?? way.source;
  const problem = error ? problemOf(error).problems?.find((each) => each.field === 'reason') : undefined;
  const send = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    setTries(tries + 1);
    const made = await allow({ key: formKey, once: `${once}-${tries}`, body: { ...way, reason } });
    if ('error' in made) return;
    toast(say('workshop:way.permitted'));
    done();
  };
  return (
    <form onSubmit={send} className="mt-6 border-t border-rule-strong pt-4" noValidate>
      <h3 className="font-semibold">{say('workshop:way.orPermit')}</h3>
      {[...form.reads, ...form.readsColumns].includes(way.source) ? (
        <>
          <p className="mt-1 text-soft">
            {say(way.what === 'value' ? 'workshop:way.learnValue' : 'workshop:way.learnSomething', { label })}{' '}
            {say('workshop:way.untilEnded')}
          </p>
          <label htmlFor="way-reason" className="mt-3 block">
            {say('workshop:way.why')}
          </label>
          <textarea
            id="way-reason"
            className="input mt-1"
            rows={2}
            value={reason}
            aria-invalid={problem !== undefined}
            onChange={(event) => setReason(event.target.value)}
          />
          {problem ? <p className="mt-1 text-brick">{`${told(problem.message)} ${told(problem.fix)}`}</p> : null}
          {error && !problem ? (
            <div className="mt-2">
              <Trouble error={error} />
            </div>
          ) : null}
          <div className="mt-3 flex gap-3">
            <Button type="submit" disabled={isLoading}>
              {say('workshop:way.permit')}
            </Button>
            <Dialog.Close asChild>
              <Button>{say('workshop:way.notNow')}</Button>
            </Dialog.Close>
          </div>
        </>
      ) : (
        <>
          <p className="mt-1 text-soft">{say('workshop:way.onlyReader', { label })}</p>
          <Dialog.Close asChild>
            <Button className="mt-3">{say('common:close')}</Button>
          </Dialog.Close>
        </>
      )}
    </form>
  );
}
