import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { ChoiceLine } from '../../ui/ChoiceLine.tsx';
import { TextLine } from '../../ui/TextLine.tsx';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';

/** One more way in to a form: for the staff, or for everybody with the link; its short address can be chosen. */
export function AddDoor({ form }: { form: string }) {
  const [isOpen, setOpen] = useState(false);
  const [name, setName] = useState('');
  const [slug, setSlug] = useState('');
  const [proof, setProof] = useState<'sign-in' | 'confirmed-address'>('confirmed-address');
  const [once, setOnce] = useState(() => crypto.randomUUID());
  const [add, { isLoading, error, reset }] = workshopApi.useAddDoorMutation();
  const make = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const address = slug.trim() === '' ? {} : { slug: slug.trim() };
    const made = await add({ key: form, once, body: { name, proof, ...address } });
    setOnce(crypto.randomUUID());
    if ('error' in made) return;
    toast(say('workshop:doors.added', { door: name }));
    setName('');
    setSlug('');
    setOpen(false);
  };
  if (!isOpen)
    return (
      <p className="mt-4">
        <Button onClick={() => setOpen(true)}>{say('workshop:doors.add')}</Button>
      </p>
    );
  return (
    <form noValidate onSubmit={make} className="mt-5 max-w-[34rem] border-l-2 border-green pl-4">
      <h2>{say('workshop:doors.add')}</h2>
      <TextLine
        id="door-name"
        label={say('workshop:doors.name')}
        hint={say('workshop:doors.nameHint')}
        error={error}
        field="name"
        value={name}
        change={(typed) => {
          reset();
          setName(typed);
        }}
      />
      <ChoiceLine
        id="door-proof"
        label={say('workshop:doors.forWhom')}
        error={error}
        field="proof"
        options={(['confirmed-address', 'sign-in'] as const).map((key) => ({
          key,
          label: say(`workshop:doors.proof.${key}`),
        }))}
        value={proof}
        choose={setProof}
      />
      <TextLine
        id="door-slug"
        label={say('workshop:doors.address')}
        hint={say('workshop:doors.addressHint', { start: `${location.origin}/ask/` })}
        error={error}
        field="slug"
        value={slug}
        change={(typed) => {
          reset();
          setSlug(typed.toLowerCase());
        }}
      />
      <WholeTrouble error={error} className="mt-3" />
      <p className="mt-4 flex gap-2">
        <Button look="main" type="submit" disabled={isLoading || name.trim() === ''}>
          {say('workshop:doors.addNow')}
        </Button>
        <Button onClick={() => setOpen(false)}>{say('common:cancel')}</Button>
      </p>
    </form>
  );
}
