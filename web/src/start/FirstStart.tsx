import type { AnswerOf } from '@tolvek/contract';
import { useEffect, useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { ChoiceLine } from '../ui/ChoiceLine.tsx';
import { Column } from '../ui/Column.tsx';
import { TextLine } from '../ui/TextLine.tsx';
import { Trouble, WholeTrouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { ZoneLine } from '../ui/ZoneLine.tsx';
import { meApi } from '../wire/me.ts';
import { LANGUAGE_NAMES, LANGUAGES, language, say, speak } from '../wire/words.ts';
import { startApi } from './endpoints.ts';

const hereZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';

/** The first start: the desk, and the first administrator. */
export function FirstStart() {
  useTitle(say('start:title'));
  const { token = '' } = useParams();
  const { data, error } = startApi.useFirstStartQuery({ token });
  return (
    <Column>
      <h1 className="text-[28px]">{say('start:title')}</h1>
      {error ? (
        <div className="mt-5">
          <Trouble error={error} />
        </div>
      ) : data ? (
        <Laying token={token} opened={data} />
      ) : (
        <p className="mt-4 text-soft">{say('desk:oneMoment')}</p>
      )}
    </Column>
  );
}

function Laying({ token, opened }: { token: string; opened: AnswerOf<'firstStart'> }) {
  const navigate = useNavigate();
  const [lay, { isLoading, error }] = startApi.useLayGroundMutation();
  const [signIn] = meApi.useSignInMutation();
  const [desk, setDesk] = useState({ ...opened.desk, zone: hereZone(), language: language() });
  const [administrator, setAdministrator] = useState({ name: '', email: opened.email, password: '' });
  const form = useRef<HTMLFormElement>(null);
  const inDesk = (change: Partial<typeof desk>): void => setDesk((before) => ({ ...before, ...change }));
  const inPerson = (change: Partial<typeof administrator>): void =>
    setAdministrator((before) => ({ ...before, ...change }));
  // What is wrong is where one goes on.
  useEffect(() => {
    if (error) form.current?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus();
  }, [error]);
  const send = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const laid = await lay({ token, body: { desk, administrator } });
    if ('error' in laid) return;
    await signIn({ email: administrator.email.trim().toLowerCase(), password: administrator.password });
    navigate('/workshop/groundwork');
  };
  return (
    <form ref={form} onSubmit={send} noValidate className="max-w-[34rem]">
      <p className="mt-2">{say('start:intro')}</p>
      <p className="mt-1 text-soft">{say('start:ends', { ends: opened.ends })}</p>
      <h2 className="section-head mt-8">{say('start:theDesk')}</h2>
      <TextLine
        id="desk-name"
        label={say('settings:theName')}
        hint={say('start:nameHint')}
        error={error}
        field="desk.name"
        value={desk.name}
        change={(typed) => inDesk({ name: typed })}
      />
      <TextLine
        id="desk-organisation"
        label={say('settings:theOrganisation')}
        hint={say('start:organisationHint')}
        error={error}
        field="desk.organisation"
        autoComplete="organization"
        value={desk.organisation}
        change={(typed) => inDesk({ organisation: typed })}
      />
      <TextLine
        id="desk-sender"
        label={say('settings:theSenderAddress')}
        hint={say('start:senderHint')}
        error={error}
        field="desk.sender.address"
        type="email"
        value={desk.sender}
        change={(typed) => inDesk({ sender: typed })}
      />
      <ZoneLine
        id="desk-zone"
        label={say('settings:theZone')}
        hint={say('start:zoneHint')}
        error={error}
        field="desk.zone"
        value={desk.zone}
        choose={(zone) => inDesk({ zone })}
      />
      <ChoiceLine
        id="desk-language"
        label={say('settings:theLanguage')}
        hint={say('start:languageHint')}
        error={error}
        field="desk.language"
        options={LANGUAGES.map((key) => ({ key, label: LANGUAGE_NAMES[key] }))}
        value={desk.language}
        choose={(chosen) => {
          inDesk({ language: chosen });
          void speak(chosen);
        }}
      />
      <h2 className="section-head mt-10">{say('start:you')}</h2>
      <p className="mt-2 text-soft">{say('start:youHint')}</p>
      <TextLine
        id="your-name"
        label={say('start:yourName')}
        error={error}
        field="administrator.name"
        autoComplete="name"
        value={administrator.name}
        change={(typed) => inPerson({ name: typed })}
      />
      <TextLine
        id="your-email"
        label={say('start:yourAddress')}
        error={error}
        field="administrator.email"
        type="email"
        autoComplete="username"
        value={administrator.email}
        change={(typed) => inPerson({ email: typed })}
      />
      <TextLine
        id="your-password"
        label={say('common:password')}
        hint={say('start:passwordHint')}
        error={error}
        field="administrator.password"
        type="password"
        autoComplete="new-password"
        value={administrator.password}
        change={(typed) => inPerson({ password: typed })}
      />
      <WholeTrouble error={error} className="mt-5" />
      <Button look="main" type="submit" disabled={isLoading} className="mt-7 min-h-11 px-6">
        {isLoading ? say('start:settingUp') : say('start:setUp')}
      </Button>
    </form>
  );
}
