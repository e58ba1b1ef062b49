import { useState } from 'react';
import { toast } from 'sonner';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { groundApi } from '../groundwork/endpoints.ts';
import { NotInForce } from '../groundwork/NotInForce.tsx';
import { RetiredBox } from '../groundwork/RetiredBox.tsx';
import { WhatWasSet } from '../groundwork/States.tsx';
import { Tokens, type TokenWords } from '../groundwork/Tokens.tsx';
import { type Around, ProgramFields } from './ProgramFields.tsx';
import { ProgramTold } from './ProgramTold.tsx';
import type { Opened, ProgramDraft } from './programDraft.ts';

const draftOf = ({ key: _, ...program }: Opened['program']): ProgramDraft => program;

/** A program in force: its settings, its keys, and what it was told. A change counts once it is put in force. */
export function ProgramEditor({ opened, around }: { opened: Opened; around: Around }) {
  const [was] = useState(() => draftOf(opened.program));
  const [draft, setDraft] = useState(was);
  const [put, { isLoading, error }] = groundApi.useChangeProgramMutation();
  const isChanged = JSON.stringify(draft) !== JSON.stringify(was);
  const save = async (note: string): Promise<void> => {
    const saved = await put({ key: opened.key, version: opened.version, body: { program: draft, note } });
    if ('data' in saved && saved.data) toast(say('programs:saved'));
  };
  return (
    <div className="max-w-[46rem]">
      <ProgramFields {...{ draft, around, error }} change={setDraft} />
      {isChanged ? null : <ProgramTold opened={opened} mayChange={around.mayChange} />}
      <Keys opened={opened} mayChange={around.mayChange} />
      {around.mayChange ? (
        <p className="mt-6">
          <RetiredBox label={say('programs:retired')} draft={draft} change={setDraft} error={error} />
        </p>
      ) : null}
      <WholeTrouble error={error} className="mt-4" />
      {isChanged ? (
        <NotInForce disabled={isLoading} save={(note) => void save(note)} undo={() => setDraft(was)} />
      ) : null}
      <WhatWasSet states={opened.states} back={({ program }) => setDraft(draftOf(program))} />
    </div>
  );
}

const keyWords = (): TokenWords => ({
  ...{ none: say('programs:noKeys'), endHint: say('programs:endKeyHint'), endNow: say('programs:endKeyNow') },
  ...{ ended: say('programs:keyEnded'), add: say('programs:addKey'), addTitle: say('programs:newKeyTitle') },
  ...{ addHint: say('programs:keyNameHint'), name: say('programs:keyName'), create: say('programs:createKey') },
  once: say('programs:keyShown'),
  endTitle: (name) => say('programs:endKeyTitle', { name }),
});

function Keys({ opened: { key, keys }, mayChange }: { opened: Opened; mayChange: boolean }) {
  const [end] = groundApi.useEndProgramKeyMutation();
  const [add] = groundApi.useAddProgramKeyMutation();
  return (
    <>
      <h2 className="section-head mt-7">{say('programs:keys')}</h2>
      <p className="mt-1.5 text-soft">
        {say('programs:keysHint')} <a href="/api/openapi.json">{say('programs:apiDescription')}</a>
      </p>
      <Tokens
        tokens={keys}
        words={keyWords()}
        mayChange={mayChange}
        end={(id) => end({ key, id })}
        add={async (body) => {
          const made = await add({ key, body });
          return made.data ? { data: made.data.key } : { error: made.error };
        }}
      />
    </>
  );
}
