import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { DeskMoment } from '../../wire/DeskMoment.tsx';
import { say } from '../../wire/words.ts';
import { CopyLine } from '../groundwork/CopyLine.tsx';
import { groundApi } from '../groundwork/endpoints.ts';
import type { Opened } from './programDraft.ts';

interface ToldProps {
  readonly opened: Opened;
  readonly mayChange: boolean;
}

/** By which notices a program is told, with which secret, and what became of what it was told. */
export function ProgramTold({ opened, mayChange }: ToldProps) {
  const { key, program, toldBy } = opened;
  const [tell, { error }] = groundApi.useTryProgramMutation();
  const isTold = program.address !== '' && !program.retired;
  const test = async (): Promise<void> => {
    if ('data' in (await tell({ key }))) toast(say('programs:trying'));
  };
  return (
    <>
      {isTold ? (
        <>
          <h3 className="mt-5 font-semibold">{say('programs:toldBy')}</h3>
          <ul>
            {toldBy.map(({ form, title, notice, name }) => (
              <li key={`${form} ${notice}`} className="border-b border-rule py-1.5">
                <Link to={`/workshop/${form}/notices?notice=${notice}`}>{name}</Link>{' '}
                <span className="text-soft">{title}</span>
              </li>
            ))}
            {toldBy.length === 0 ? <li className="py-1.5 text-soft">{say('programs:toldByNone')}</li> : null}
          </ul>
          {mayChange ? <Secret program={key} /> : null}
        </>
      ) : null}
      {isTold || opened.told.length > 0 ? <Deliveries {...{ opened, mayChange }} /> : null}
      <WholeTrouble error={error} className="mt-2" />
      {isTold && mayChange ? (
        <p className="mt-2.5">
          <Button onClick={() => void test()}>{say('programs:tryIt')}</Button>
        </p>
      ) : null}
    </>
  );
}

function Secret({ program }: { program: string }) {
  const [isShown, setShown] = useState(false);
  const { data } = groundApi.useProgramSecretQuery({ key: program }, { skip: !isShown });
  const [renew, { error }] = groundApi.useRenewProgramSecretMutation();
  return (
    <>
      <h3 className="mt-5 font-semibold">{say('programs:secret')}</h3>
      <p className="mt-1 text-soft">{say('programs:secretHint')}</p>
      {data ? (
        <>
          <CopyLine text={data.secret} name={say('programs:secret')} />
          {data.untilBoth ? (
            <p className="mt-1.5 text-soft">{say('programs:bothUntil', { at: data.untilBoth })}</p>
          ) : null}
          <p className="mt-2 flex flex-wrap items-center gap-3">
            <Button onClick={() => void renew({ key: program })}>{say('programs:renewSecret')}</Button>
            <span className="text-[13px] text-soft">{say('programs:renewSure')}</span>
          </p>
        </>
      ) : (
        <p className="mt-2">
          <Button onClick={() => setShown(true)}>{say('programs:showSecret')}</Button>
        </p>
      )}
      <WholeTrouble error={error} className="mt-2" />
    </>
  );
}

function Deliveries({ opened: { key, told }, mayChange }: ToldProps) {
  const [again, { error }] = groundApi.useTellProgramAgainMutation();
  return (
    <>
      <h3 className="mt-5 font-semibold">{say('programs:deliveries')}</h3>
      <ul className="max-h-[22rem] overflow-auto">
        {told.map(({ id, at, about, attempts, state, next, error: why, again: may }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1.5">
            <span className="w-40 flex-none whitespace-nowrap text-soft tabular-nums">
              <DeskMoment at={at} />
            </span>
            <span className="min-w-40 flex-1">
              {about === '' ? say('programs:aTest') : about}
              {why === null && next === null ? null : (
                <span className="block text-[13px] text-soft">
                  {[
                    why,
                    attempts > 0 ? say('programs:tries', { count: attempts }) : null,
                    next !== null && attempts > 0 ? say('programs:nextTry', { at: next }) : null,
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </span>
              )}
            </span>
            <span className={state === 'failed' ? 'text-brick' : state === 'sent' ? 'text-green' : 'text-soft'}>
              {say(`programs:state.${state}`)}
            </span>
            {may && mayChange ? <Button onClick={() => void again({ key, id })}>{say('programs:again')}</Button> : null}
          </li>
        ))}
        {told.length === 0 ? <li className="py-1.5 text-soft">{say('programs:noDeliveries')}</li> : null}
      </ul>
      <WholeTrouble error={error} className="mt-2" />
    </>
  );
}
