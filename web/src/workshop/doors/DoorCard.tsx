import type { AnswerOf } from '@tolvek/contract';
import { doorInWords } from '@tolvek/core/door';
import { partName } from '@tolvek/core/form';
import { lazy, Suspense, useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { problemOf } from '../../wire/problem.ts';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { CopyButton } from '../CopyButton.tsx';
import { workshopApi } from '../endpoints.ts';
import { DoorEditor } from './DoorEditor.tsx';
import { useDoorNames } from './doorNames.ts';
import { MoveDoor } from './MoveDoor.tsx';
import { RemoveDoor } from './RemoveDoor.tsx';

const LinkPicture = lazy(() => import('./LinkPicture.tsx'));

const DOOR_STATES = {
  open: 'workshop:door.open',
  closed: 'workshop:door.closed',
  'not-yet': 'workshop:door.notYet',
} as const;

type DoorSettings = AnswerOf<'form'>['doors'][number];

/** One way in to the form: what it is set to, its link, and what can be done with it. */
export function DoorCard({ door }: { door: DoorSettings }) {
  const { form, editing } = useBinder();
  const [setDoor, { isLoading }] = workshopApi.useSetDoorMutation();
  const [isEditing, setEditing] = useState(false);
  const [isShown, setShown] = useState(false);
  const { data: opened } = workshopApi.useDoorDesignQuery({ slug: door.slug }, { skip: !isEditing });
  const nameOf = useDoorNames(door.words);
  const link = `${location.origin}/ask/${door.slug}`;
  const put = async (open: boolean): Promise<void> => {
    try {
      await setDoor({ slug: door.slug, body: { open, closedMessage: door.closedMessage } }).unwrap();
      toast(open ? say('workshop:doors.opened') : say('workshop:doors.closedNow'));
    } catch (error) {
      toast.error(problemOf(error).detail);
    }
  };
  return (
    <section aria-label={door.name} className="mt-5 border-b border-rule pb-4">
      <h2>
        {door.name}{' '}
        <span
          className={`ml-2 font-sans text-[13px] font-normal ${door.state === 'open' ? 'text-green' : 'text-brick'}`}
        >
          {say(DOOR_STATES[door.state])}
        </span>
      </h2>
      <p className="mt-1 text-soft">
        {doorInWords(door.door, nameOf, (key) => partName(editing.draft, key))
          .map(told)
          .join(' ')}
      </p>
      <p className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-2">
        <code className="font-mono text-[13px] break-all">{link}</code>
        <CopyButton text={link} label={say('workshop:doors.copy')} />
        <button type="button" className="text-green underline" onClick={() => setShown(!isShown)}>
          {say(isShown ? 'workshop:doors.hideCode' : 'workshop:doors.showCode')}
        </button>
      </p>
      {door.door.embeds ? <Snippet slug={door.slug} title={form.draft.title} /> : null}
      {isShown ? (
        <Suspense>
          <LinkPicture link={link} name={door.slug} />
        </Suspense>
      ) : null}
      <p className="mt-3 flex flex-wrap gap-2">
        <Button disabled={isEditing} onClick={() => setEditing(true)}>
          {say('workshop:doors.change')}
        </Button>
        <Button disabled={isLoading || isEditing} onClick={() => put(!door.open)}>
          {door.open ? say('workshop:doors.close') : say('workshop:doors.open')}
        </Button>
        <MoveDoor slug={door.slug} name={door.name} />
        <RemoveDoor slug={door.slug} name={door.name} />
      </p>
      {isEditing && opened ? <DoorEditor key={opened.version} opened={opened} close={() => setEditing(false)} /> : null}
    </section>
  );
}

/** What a page elsewhere is written with to show the form in it. */
function Snippet({ slug, title }: { slug: string; title: string }) {
  const named = title.replace(/[&"<>]/g, (sign) => `&#${sign.charCodeAt(0)};`);
  const text = `<iframe src="${location.origin}/embed/${slug}" title="${named}" style="width:100%;height:900px;border:0"></iframe>`;
  return (
    <p className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1">
      <span className="text-soft">{say('workshop:doors.embedWith')}</span>
      <code className="min-w-0 flex-1 font-mono text-[12.5px] break-all">{text}</code>
      <CopyButton text={text} label={say('workshop:doors.copyEmbed')} />
    </p>
  );
}
