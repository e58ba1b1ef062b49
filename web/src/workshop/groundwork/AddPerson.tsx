import { useState } from 'react';
import { useNavigate } from 'react-router';
import { Button } from '../../ui/Button.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { TextLine } from '../../ui/TextLine.tsx';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';

const NOBODY = { name: '', email: '' };

/** Adds somebody: name, address and groups; nobody is written to. */
export function AddPerson({ kind, base }: { kind: 'staff' | 'contact'; base: string }) {
  const navigate = useNavigate();
  const [open, setOpen] = useState(false);
  const [person, setPerson] = useState(NOBODY);
  const [inside, setInside] = useState<readonly string[]>([]);
  const [once, setOnce] = useState(() => crypto.randomUUID());
  const { data: groups } = groundApi.useGroupsQuery(undefined, { skip: !open });
  const [add, { isLoading, error, reset }] = groundApi.useAddPersonMutation();
  const send = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const added = await add({ once, body: { kind, ...person, groups: [...inside] } });
    // A corrected one is a new try; the same one sent twice is added once.
    setOnce(crypto.randomUUID());
    if (!('data' in added) || !added.data) return;
    setOpen(false);
    setPerson(NOBODY);
    setInside([]);
    navigate(`${base}/${added.data.id}`);
  };
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      reset={reset}
      title={say(kind === 'staff' ? 'ground:addPersonTitle' : 'ground:addContactTitle')}
      trigger={<Button look="main">{say(kind === 'staff' ? 'ground:addPerson' : 'ground:addContact')}</Button>}
    >
      <form onSubmit={send} noValidate>
        <p className="text-soft">{say('ground:addPersonHint')}</p>
        <TextLine
          id="person-name"
          label={say('ground:set.name')}
          error={error}
          field="name"
          autoComplete="off"
          value={person.name}
          change={(typed) => setPerson({ ...person, name: typed })}
        />
        <TextLine
          id="person-email"
          label={say('ground:set.email')}
          error={error}
          field="email"
          type="email"
          autoComplete="off"
          value={person.email}
          change={(typed) => setPerson({ ...person, email: typed })}
        />
        {groups && groups.groups.length > 0 ? (
          <fieldset className="mt-4">
            <legend className="font-semibold">{say('ground:groups')}</legend>
            <div className="mt-1 grid max-h-48 gap-x-4 overflow-auto sm:grid-cols-2">
              {groups.groups
                .filter(({ retired }) => !retired)
                .map(({ key, name }) => (
                  <label key={key} className="flex items-center gap-2 py-0.5">
                    <input
                      type="checkbox"
                      className="accent-green"
                      checked={inside.includes(key)}
                      onChange={() =>
                        setInside(inside.includes(key) ? inside.filter((each) => each !== key) : [...inside, key])
                      }
                    />{' '}
                    {name}
                  </label>
                ))}
            </div>
          </fieldset>
        ) : null}
        <WholeTrouble error={error} />
        <p className="mt-5">
          <Button look="main" type="submit" disabled={isLoading}>
            {say(kind === 'staff' ? 'ground:addPerson' : 'ground:addContact')}
          </Button>
        </p>
      </form>
    </DialogFrame>
  );
}
