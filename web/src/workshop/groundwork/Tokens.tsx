import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { ChoiceLine } from '../../ui/ChoiceLine.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { TextLine } from '../../ui/TextLine.tsx';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { CopyLine } from './CopyLine.tsx';

/** Something by which a program comes in: told once, and ended by hand or by itself. */
type Token = AnswerOf<'directory'>['tokens'][number];

/** What the tokens of one kind are called. */
export interface TokenWords {
  readonly none: string;
  readonly endTitle: (name: string) => string;
  readonly endHint: string;
  readonly endNow: string;
  readonly ended: string;
  readonly add: string;
  readonly addTitle: string;
  readonly addHint: string;
  readonly name: string;
  readonly create: string;
  readonly once: string;
}

/** What was done; an error where it was not. */
type Done<T> = { readonly data: T } | { readonly error: unknown };

interface TokensProps {
  readonly tokens: readonly Token[];
  readonly words: TokenWords;
  /** Whether the reader may make and end them. */
  readonly mayChange: boolean;
  readonly end: (id: string) => Promise<Done<unknown>>;
  /** Makes one, and says what it is. */
  readonly add: (made: { readonly name: string; readonly days: number | null }) => Promise<Done<string>>;
}

/** The tokens there are, with the presses that make and end them. */
export function Tokens({ tokens, words, mayChange, end, add }: TokensProps) {
  return (
    <>
      <ul>
        {tokens.map((token) => (
          <TokenLine key={token.id} {...{ token, words, end }} mayEnd={mayChange} />
        ))}
        {tokens.length === 0 ? <li className="py-1.5 text-soft">{words.none}</li> : null}
      </ul>
      {mayChange ? (
        <div className="mt-2.5">
          <NewToken {...{ words, add }} />
        </div>
      ) : null}
    </>
  );
}

function TokenLine({
  token: { id, name, by, made, used, ends, state },
  mayEnd,
  ...ending
}: { readonly token: Token; readonly mayEnd: boolean } & Pick<TokensProps, 'words' | 'end'>) {
  const isWorking = state === 'works';
  return (
    <li className="flex items-baseline justify-between gap-3 border-b border-rule py-2">
      <span className={isWorking ? '' : 'text-soft'}>
        {name}
        {isWorking ? '' : ` · ${say(`directory:state.${state}`)}`}
        <span className="block text-[12.5px] text-soft">
          {[
            by === '' ? say('directory:made', { at: made }) : say('directory:madeBy', { by, at: made }),
            used === null ? say('directory:unused') : say('directory:used', { at: used }),
            isWorking && ends !== null ? say('directory:ends', { at: ends }) : '',
          ]
            .filter(Boolean)
            .join(' · ')}
        </span>
      </span>
      {isWorking && mayEnd ? <EndToken {...{ id, name, ...ending }} /> : null}
    </li>
  );
}

function EndToken({ id, name, words, end }: Pick<Token, 'id' | 'name'> & Pick<TokensProps, 'words' | 'end'>) {
  const [open, setOpen] = useState(false);
  const [error, setError] = useState<unknown>();
  const endNow = async (): Promise<void> => {
    const done = await end(id);
    if ('error' in done) return setError(done.error);
    toast(words.ended);
    setOpen(false);
  };
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      title={words.endTitle(name)}
      trigger={<Button>{say('directory:end')}</Button>}
    >
      <p className="mt-2">{words.endHint}</p>
      <WholeTrouble error={error} />
      <p className="mt-4">
        <Button look="refuse" onClick={() => void endNow()}>
          {words.endNow}
        </Button>
      </p>
    </DialogFrame>
  );
}

/** For how long a token may work, days. */
const DAYS = { '90': 90, '365': 365, none: null } as const;
type Days = keyof typeof DAYS;

/** A token is made with a name and a time, told once, and copied. */
function NewToken({ words, add }: Pick<TokensProps, 'words' | 'add'>) {
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const [days, setDays] = useState<Days>('365');
  const [token, setToken] = useState('');
  const [error, setError] = useState<unknown>();
  const turn = (now: boolean): void => {
    setOpen(now);
    setToken('');
    setName('');
    setError(undefined);
  };
  const make = async (): Promise<void> => {
    const made = await add({ name: name.trim(), days: DAYS[days] });
    if ('error' in made) setError(made.error);
    else setToken(made.data);
  };
  return (
    <DialogFrame
      open={open}
      onOpenChange={turn}
      title={words.addTitle}
      trigger={<Button look="main">{words.add}</Button>}
    >
      {token === '' ? (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void make();
          }}
          noValidate
        >
          <p className="mt-2 text-soft">{words.addHint}</p>
          <TextLine id="token-name" label={words.name} error={error} field="name" value={name} change={setName} />
          <ChoiceLine
            id="token-days"
            label={say('directory:works')}
            error={error}
            field="days"
            options={(Object.keys(DAYS) as Days[]).map((key) => ({ key, label: say(`directory:days.${key}`) }))}
            value={days}
            choose={setDays}
          />
          <WholeTrouble error={error} />
          <p className="mt-4">
            <Button look="main" type="submit" disabled={name.trim() === ''}>
              {words.create}
            </Button>
          </p>
        </form>
      ) : (
        <>
          <p className="mt-2">{words.once}</p>
          <CopyLine text={token} name={words.addTitle} />
          <p className="mt-4">
            <Button look="main" onClick={() => turn(false)}>
              {say('directory:tokenDone')}
            </Button>
          </p>
        </>
      )}
    </DialogFrame>
  );
}
