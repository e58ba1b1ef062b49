import { ASKING, type Edition, partKey, partName } from '@tolvek/core/form';
import { useMemo, useState } from 'react';
import { say } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { workshopApi } from '../endpoints.ts';
import { SeatPicker } from '../SeatPicker.tsx';
import { factsAtSeat, isAnybody, viewerAtSeat } from '../useProof.ts';
import { MomentPicker } from './MomentPicker.tsx';
import { editionAt, type SideForm, sideOf } from './side.ts';

/** How an edition has a part, in a few words; empty where it is not there. */
function hasIt(form: SideForm, key: string): string {
  const part = form.parts.find((each) => partKey(each) === key);
  if (!part) return '';
  if (part.part === 'instruction') return part.text;
  if (part.part !== 'question') return [part.title, part.text].filter(Boolean).join('. ');
  const field = form.fields.find((each) => each.key === part.field);
  const isLocked = form.rules.some(
    (rule) => rule.id === 'edition-locks' && rule.then.some((each) => 'fields' in each && each.fields.includes(key)),
  );
  const options = field?.type.kind === 'choice' || field?.type.kind === 'choices' ? field.type.options : [];
  const isCut = options.some((option) => option.retired);
  return [
    part.asks || field?.label || key,
    ...(part.help ? [part.help] : []),
    ...(part.required ? [say('editions:isRequired')] : []),
    ...(isLocked ? [say('editions:shown.lock')] : []),
    ...(isCut ? [options.flatMap((option) => (option.retired ? [] : [option.label])).join(', ')] : []),
  ].join(' · ');
}

/** All keys once: in the order of the first, what only the second has after what it follows there. */
function besideEachOther(one: readonly string[], other: readonly string[]): readonly string[] {
  const keys = [...one];
  for (const [place, key] of other.entries())
    if (!keys.includes(key)) keys.splice(place === 0 ? 0 : keys.indexOf(other[place - 1] ?? '') + 1, 0, key);
  return keys;
}

interface Chosen {
  /** The id of an edition; empty: the form as it is; `*`: the one they are given. */
  readonly edition: string;
  readonly seat: string;
  readonly stage: string;
  readonly as: string;
}

const NOBODY: Chosen = { edition: '', seat: '', stage: ASKING, as: '' };

interface OneSide {
  readonly form: SideForm;
  readonly given: Edition | null;
  /** What whoever sits there is called, as far as it is known. */
  readonly called: string | undefined;
}

/** The draft as one side has it, and the edition that whoever sits there would be given. */
function useSide({ edition, seat, stage, as }: Chosen): OneSide {
  const { editing, form } = useBinder();
  const { draft } = editing;
  const isNamed = seat !== '' && !isAnybody(seat);
  const { data } = workshopApi.useProofSeatQuery({ key: form.key, person: seat }, { skip: !isNamed });
  const sitting = data?.key === seat ? data : undefined;
  const side = useMemo(() => {
    if (seat === '' || (isNamed && !sitting))
      return { form: sideOf(draft, form, { edition, who: null, stage, as }), given: null };
    const facts = factsAtSeat(seat, sitting, form, [], []);
    const viewer = viewerAtSeat(facts, sitting?.rights ?? [], [...form.asking, ...(draft.editions ?? [])]);
    const who = { facts, viewer };
    return {
      form: sideOf(draft, form, { edition, who, stage, as }),
      given: editionAt(draft, form.key, { edition: '*', who, stage, as }),
    };
  }, [draft, form, edition, seat, stage, as, sitting, isNamed]);
  return { ...side, called: sitting?.label };
}

/** What one side is: whose eyes, when, and in which edition. */
function Picking({
  at,
  chosen,
  side: { given, called },
  set,
}: {
  at: 0 | 1;
  chosen: Chosen;
  side: OneSide;
  set: (chosen: Chosen) => void;
}) {
  const { editing, form } = useBinder();
  const editions = editing.draft.editions ?? [];
  const { edition, seat, stage, as } = chosen;
  const side = say(at === 0 ? 'editions:leftSide' : 'editions:rightSide');
  const sit = (next: string): void =>
    // Of nobody in particular it is not known what they are given.
    set({
      ...chosen,
      seat: next,
      edition: next === '' && edition === '*' ? '' : seat === '' && next !== '' ? '*' : edition,
    });
  return (
    <div className="grid gap-1.5 font-normal">
      <SeatPicker
        id={`side-${at}`}
        people={form.people}
        label={say('editions:sideWho', { side })}
        look="input w-full"
        seat={seat}
        sit={sit}
        called={called}
        nobody={say('editions:nobodyNamed')}
      />
      {seat === '' ? null : (
        <MomentPicker
          look="input w-full"
          when={say('editions:sideWhen', { side })}
          asWhom={say('editions:sideAs', { side })}
          stage={stage}
          setStage={(next) => set({ ...chosen, stage: next })}
          as={as}
          setAs={(next) => set({ ...chosen, as: next })}
        />
      )}
      <select
        className="input w-full"
        aria-label={side}
        value={edition}
        onChange={({ target: { value } }) => set({ ...chosen, edition: value })}
      >
        {seat === '' ? null : (
          <option value="*">
            {say('editions:asGiven', {
              name: given ? given.name || say('editions:unnamed') : say('editions:plain'),
            })}
          </option>
        )}
        <option value="">{say('editions:plain')}</option>
        {editions.map((each) => (
          <option key={each.id} value={each.id}>
            {each.name || say('editions:unnamed')}
          </option>
        ))}
      </select>
    </div>
  );
}

/** Two editions side by side, or one for two people or at two stages: part by part in the order of the first. */
export function Compared() {
  const { draft } = useBinder().editing;
  const [left, setLeft] = useState(NOBODY);
  const [right, setRight] = useState({ ...NOBODY, edition: draft.editions?.[0]?.id ?? '' });
  const [one, other] = [useSide(left), useSide(right)];
  const [a, b] = [one.form, other.form];
  const keys = besideEachOther(a.parts.map(partKey), b.parts.map(partKey));
  const nameFrom = (key: string): string => partName(a.parts.some((part) => partKey(part) === key) ? a : b, key);
  return (
    <section aria-labelledby="compared" className="mt-8">
      <h2 id="compared" className="section-head">
        {say('editions:sideBySide')}
      </h2>
      <table className="mt-2 w-full table-fixed border-collapse text-[14px]">
        <thead>
          <tr>
            <th className="w-1/2 pr-3 pb-2 text-left align-top">
              <Picking at={0} chosen={left} side={one} set={setLeft} />
            </th>
            <th className="w-1/2 pb-2 text-left align-top">
              <Picking at={1} chosen={right} side={other} set={setRight} />
            </th>
          </tr>
        </thead>
        <tbody>
          {keys.map((key) => {
            const sides = [hasIt(a, key), hasIt(b, key)];
            const differs = sides[0] !== sides[1];
            return (
              <tr key={key} className="align-top">
                {sides.map((words, at) => (
                  <td
                    // biome-ignore lint/suspicious/noArrayIndexKey: there are two sides, and they stay.
                    key={at}
                    className={`border-b border-rule py-1.5 pr-3 break-words ${differs ? 'border-l-[3px] border-l-brass pl-2' : 'pl-2.5 text-soft'}`}
                  >
                    {words || <span className="text-brick">{say('editions:notThere', { name: nameFrom(key) })}</span>}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
