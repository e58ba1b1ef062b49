import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { ToSignIn } from '../ui/ToSignIn.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { DeskMoment } from '../wire/DeskMoment.tsx';
import { meApi } from '../wire/me.ts';
import { say, told } from '../wire/words.ts';
import { AskInto } from './AskInto.tsx';
import { DeletedRequests } from './DeletedRequests.tsx';
import { Doubles } from './Doubles.tsx';
import { workshopApi } from './endpoints.ts';
import { RegisterSettings } from './RegisterSettings.tsx';

type Register = AnswerOf<'register'>;
type AskingForm = Register['forms'][number];

/** A register: the forms that ask into it beside each other, what it is called, and what it was. */
export function RegisterPage() {
  const { register: key = '' } = useParams();
  const { data: me } = meApi.useMeQuery();
  const { data: register, error, refetch } = workshopApi.useRegisterQuery({ key });
  useTitle(register?.name ?? say('workshop:register'));
  if (me && !me.person) return <ToSignIn />;
  return (
    <main className="mx-auto max-w-[68rem] px-6 pt-6 pb-16">
      <p>
        <Link to="/workshop">{say('common:workshop')}</Link>
      </p>
      {error ? <Trouble error={error} again={refetch} /> : null}
      {register ? <OpenRegister key={register.key} register={register} /> : null}
    </main>
  );
}

function OpenRegister({ register }: { register: Register }) {
  const [adding, setAdding] = useState(false);
  const { forms, requests, holds, prefix } = register;

  return (
    <>
      <h1 className="mt-1">{register.name}</h1>
      <p className="text-soft">
        {say(holds === 'things' ? 'workshop:thingsNumbered' : 'workshop:requestsNumbered', { count: requests, prefix })}{' '}
        {forms.length === 0 ? say('workshop:forms.none') : say('workshop:forms', { count: forms.length })}{' '}
        {say('workshop:registerOwnsAll')}
      </p>
      <p className="mt-1">
        <Link to={`/workshop/groundwork/rights?register=${register.key}`}>{say('rights:whoHere')}</Link>
      </p>
      <h2 className="section-head mt-7">{say('workshop:formsOfRegister')}</h2>
      <ul>
        {forms.map((form) => (
          <FormLine key={form.key} form={form} isOnly={forms.length === 1} />
        ))}
      </ul>
      <p className="mt-3">
        <Button aria-expanded={adding} onClick={() => setAdding(!adding)}>
          {say('workshop:anotherForm')}
        </Button>
      </p>
      {adding ? <AskInto register={register} /> : null}
      <Fields register={register} />
      <ReferredBy register={register} />
      <Doubles registerKey={register.key} />
      <RegisterSettings key={register.states[0]?.number ?? 0} register={register} />
      <States register={register} />
      <DeletedRequests register={register.key} />
    </>
  );
}

/** The forms whose fields point to what is in a register. */
function ReferredBy({ register: { referredBy } }: { register: Register }) {
  return (
    <>
      <h2 className="section-head mt-7">{say('workshop:referredBy')}</h2>
      <ul>
        {referredBy.map(({ form, title, field }) => (
          <li key={`${form} ${told(field)}`} className="border-b border-rule py-1.5">
            <Link to={`/workshop/${form}`}>{title}</Link> <span className="text-soft">{told(field)}</span>
          </li>
        ))}
        {referredBy.length === 0 ? <li className="py-1.5 text-soft">{say('workshop:referredByNone')}</li> : null}
      </ul>
    </>
  );
}

const OWN_WORDS = {
  routing: 'pages:routing',
  approval: 'workshop:approval',
  deadline: 'workshop:deadline',
  notices: 'pages:notices',
} as const;

function FormLine({ form, isOnly }: { form: AskingForm; isOnly: boolean }) {
  const [setState, { error }] = workshopApi.useSetFormStateMutation();
  const [duplicate, duplicated] = workshopApi.useDuplicateFormMutation();
  const [once] = useState(() => crypto.randomUUID());
  const put = async (state: 'in use' | 'stopped' | 'deleted', words: string): Promise<void> => {
    const done = await setState({ key: form.key, body: { state } });
    if (!('error' in done)) toast(words);
  };
  const copy = async (): Promise<void> => {
    const title = say('workshop:again', { title: form.title }).slice(0, 200);
    const made = await duplicate({ key: form.key, once, body: { title } });
    if (!('error' in made)) toast(say('workshop:onShelf', { title }));
  };
  const state = form.stopped
    ? say('workshop:formStopped')
    : form.release === 0
      ? say('workshop:notReleasedYet')
      : say('workshop:formRelease', { number: form.release });
  const doors = form.doors.map((door) => say(door.kind === 'staff' ? 'workshop:staff' : 'workshop:outsiders'));
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-4 border-b border-rule py-3">
      <span>
        <Link to={`/workshop/${form.key}`} className="subject text-[17px] no-underline hover:underline">
          {form.title}
        </Link>
        <span className="block text-soft">
          {state} · {doors.length > 0 ? say('workshop:forWhom', { doors }) : say('workshop:forNobody')} ·{' '}
          {say('workshop:questions', { count: form.asks.length })} ·{' '}
          {say('workshop:requests', { count: form.requests })}
          {form.own.length > 0
            ? ` · ${say('workshop:itsOwn', { parts: form.own.map((part) => say(OWN_WORDS[part])) })}`
            : ''}
        </span>
        {error || duplicated.error ? <Trouble error={error ?? duplicated.error} /> : null}
      </span>
      <span className="flex gap-2">
        <Button disabled={duplicated.isLoading || duplicated.isSuccess} onClick={() => void copy()}>
          {say('workshop:duplicate')}
        </Button>
        {form.stopped ? (
          <>
            <Button onClick={() => void put('in use', say('workshop:inUseAgain', { title: form.title }))}>
              {say('workshop:useAgain')}
            </Button>
            <Button
              look="refuse"
              onClick={() =>
                void put(
                  'deleted',
                  isOnly
                    ? say('workshop:goneLast', { title: form.title })
                    : say('workshop:gone', { title: form.title }),
                )
              }
            >
              {say('workshop:deleteForm')}
            </Button>
          </>
        ) : (
          <Button onClick={() => void put('stopped', say('workshop:stoppedNow', { title: form.title }))}>
            {say('workshop:stopForm')}
          </Button>
        )}
      </span>
    </li>
  );
}

/** Each field, and which form asks for it. */
function Fields({ register }: { register: Register }) {
  const [change, { error }] = workshopApi.useChangeRegisterMutation();
  const { forms, fields, left, stays } = register;
  const leave = async (key: string, isLeaving: boolean): Promise<void> => {
    const { name, prefix, deskGroups, staysIn, stages, version } = register;
    const label = fields.find((field) => field.key === key)?.label ?? key;
    const body = {
      ...{ name, prefix, deskGroups, staysIn, note: '' },
      left: isLeaving ? [...left, key] : left.filter((each) => each !== key),
      stages: [...stages],
    };
    const done = await change({ key: register.key, version, body });
    if (!('error' in done)) toast(isLeaving ? say('workshop:hasLeft', { label }) : say('workshop:isBack', { label }));
  };
  return (
    <>
      <h2 className="section-head mt-9">{say('workshop:registerFields')}</h2>
      {error ? <Trouble error={error} /> : null}
      <div className="overflow-x-auto">
        <table className="w-full border-collapse">
          <thead>
            <tr className="border-b border-rule-strong text-left align-bottom text-[12.5px] text-soft">
              <th scope="col" className="py-1.5 pr-4 font-semibold">
                {say('workshop:field')}
              </th>
              {forms.map((form) => (
                <th key={form.key} scope="col" className="max-w-[9rem] px-2 py-1.5 text-center font-semibold">
                  {form.title}
                </th>
              ))}
              <th scope="col">
                <span className="sr-only">{say('workshop:canBeDone')}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {fields.map((field) => {
              const isGone = left.includes(field.key);
              return (
                <tr key={field.key} className="border-b border-rule">
                  <th scope="row" className={`py-1.5 pr-4 text-left font-normal ${isGone ? 'text-soft' : ''}`}>
                    {field.label}{' '}
                    <span className="text-[13px] text-soft">
                      {field.source === 'asked'
                        ? say(`fieldKinds:${field.type.kind}`)
                        : say(SOURCE_WORDS[field.source])}
                    </span>
                  </th>
                  {forms.map((form) => (
                    <td key={form.key} className="px-2 text-center">
                      {form.asks.includes(field.key) ? (
                        say('workshop:onThisForm')
                      ) : (
                        <span className="text-soft">·</span>
                      )}
                    </td>
                  ))}
                  <td className="py-1 text-right text-[13px]">
                    {isGone ? (
                      <span className="text-soft">
                        {say('workshop:leftSince')}{' '}
                        <button
                          type="button"
                          className="text-green underline"
                          onClick={() => void leave(field.key, false)}
                        >
                          {say('workshop:bringFieldBack')}
                        </button>
                      </span>
                    ) : stays[field.key] === undefined ? (
                      <button
                        type="button"
                        className="text-green underline"
                        title={say('workshop:fieldUnused')}
                        onClick={() => void leave(field.key, true)}
                      >
                        {say('workshop:removeFieldNow')}
                      </button>
                    ) : null}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      {fields.length === 0 ? <p className="py-3 text-soft">{say('workshop:noFieldsYet')}</p> : null}
    </>
  );
}

const SOURCE_WORDS = {
  'desk-only': 'workshop:source.desk-only',
  computed: 'workshop:source.computed',
  given: 'workshop:source.given',
  carried: 'workshop:source.carried',
} as const;

/** What was in force, the newest first, with the way back. */
function States({ register }: { register: Register }) {
  const [goBack, { error }] = workshopApi.useGoBackToStateMutation();
  const back = async (number: number): Promise<void> => {
    const done = await goBack({ key: register.key, number, version: register.version });
    if (!('error' in done)) toast(say('workshop:stateAgain', { number }));
  };
  return (
    <>
      <h2 className="section-head mt-9">{say('workshop:earlierStates')}</h2>
      {error ? <Trouble error={error} /> : null}
      <ol>
        {register.states.map((state, index) => (
          <li key={state.number} className="grid grid-cols-[6rem_minmax(0,1fr)_auto] gap-x-3 border-b border-rule py-2">
            <span>
              {say('workshop:stateNo', { number: state.number })}
              {index === 0 ? <span className="block text-[12.5px] text-green">{say('workshop:inForce')}</span> : null}
            </span>
            <span>
              {state.note || <span className="text-soft">{say('workshop:noNote')}</span>}
              <span className="block text-[13px] text-soft">
                {state.by ? `${state.by}, ` : ''}
                <DeskMoment at={state.at} />
              </span>
            </span>
            {index === 0 ? null : (
              <Button onClick={() => void back(state.number)} title={say('workshop:stateHint')}>
                {say('workshop:goBackTo')}
              </Button>
            )}
          </li>
        ))}
      </ol>
    </>
  );
}
