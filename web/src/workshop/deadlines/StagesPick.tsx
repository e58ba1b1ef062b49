import { Chip } from '../../ui/Chip.tsx';
import { say } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';

interface StagesPickProps {
  readonly label: string;
  /** Keys of stages. */
  readonly stages: readonly string[];
  readonly set: (stages: readonly string[]) => void;
}

/** Some stages of the register; each can be taken off, and others added. */
export function StagesPick({ label, stages, set }: StagesPickProps) {
  const { form } = useBinder();
  const labelOf = (key: string): string =>
    form.stages.find((stage) => stage.key === key)?.label ?? say('workshop:stageGone');
  const others = form.stages.filter(({ key }) => !stages.includes(key));
  return (
    <span className="flex flex-wrap items-center gap-2">
      {stages.map((key) => (
        <Chip
          key={key}
          words={labelOf(key)}
          dropLabel={say('workshop:dropStage', { stage: labelOf(key) })}
          drop={() => set(stages.filter((each) => each !== key))}
        />
      ))}
      {others.length > 0 ? (
        <select
          className="input w-auto"
          aria-label={label}
          value=""
          onChange={(event) => set([...stages, event.target.value])}
        >
          <option value="">{say('workshop:addStage')}</option>
          {others.map((stage) => (
            <option key={stage.key} value={stage.key}>
              {stage.label}
            </option>
          ))}
        </select>
      ) : null}
    </span>
  );
}
