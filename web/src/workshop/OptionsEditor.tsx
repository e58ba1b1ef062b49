import { freshKey } from '@tolvek/core/form';
import { type ChoiceOption, OPTION_COLOURS, type OptionColour } from '@tolvek/core/register';
import { say } from '../wire/words.ts';
import { moved } from './edits.ts';
import { MoveButtons } from './MoveButtons.tsx';

/**
 * The options of a choice: in order, each with its explanation; a retired one stays on old
 * requests.
 */
export function OptionsEditor({
  options,
  set,
}: {
  options: readonly ChoiceOption[];
  set: (options: readonly ChoiceOption[]) => void;
}) {
  const edit = (key: string, change: Partial<ChoiceOption>): void =>
    set(options.map((each) => (each.key === key ? { ...each, ...change } : each)));
  return (
    <div>
      {options.map((option, index) => (
        <div key={option.key} className="mb-1 flex items-center gap-1.5">
          <input
            aria-label={say('workshop:optionNo', { label: option.label })}
            className={`input flex-1 ${option.retired ? 'line-through' : ''}`}
            value={option.label}
            onChange={(event) => edit(option.key, { label: event.target.value })}
          />
          <input
            aria-label={say('workshop:optionHelp', { label: option.label })}
            className="input flex-1"
            placeholder={say('workshop:optionHelpHint')}
            value={option.help ?? ''}
            onChange={(event) => edit(option.key, { help: event.target.value })}
          />
          <select
            aria-label={say('workshop:optionColour', { label: option.label })}
            className="input w-[6.2rem]"
            style={option.colour ? { borderLeft: `6px solid var(--mark-${option.colour})` } : undefined}
            value={option.colour ?? ''}
            onChange={(event) =>
              set(
                options.map((each) =>
                  each.key === option.key ? withColour(each, event.target.value as OptionColour | '') : each,
                ),
              )
            }
          >
            <option value="">{say('workshop:noColour')}</option>
            {OPTION_COLOURS.map((colour) => (
              <option key={colour} value={colour}>
                {colour}
              </option>
            ))}
          </select>
          <MoveButtons
            index={index}
            of={options.length}
            words={[
              say('workshop:moveUpNo', { label: option.label }),
              say('workshop:moveDownNo', { label: option.label }),
            ]}
            move={(way) => set(moved(options, index, way))}
          />
          <button
            type="button"
            className="w-[4.6rem] text-left text-[13px] text-green"
            onClick={() => edit(option.key, { retired: !option.retired })}
          >
            {option.retired ? say('workshop:offerAgain') : say('workshop:retireOption')}
          </button>
        </div>
      ))}
      <input
        aria-label={say('workshop:addOption')}
        className="input"
        placeholder={say('workshop:addOptionHint')}
        onKeyDown={(event) => {
          const label = event.currentTarget.value.trim();
          if (event.key !== 'Enter' || label === '') return;
          event.preventDefault();
          set(withLabels(options, [label]));
          event.currentTarget.value = '';
        }}
        onPaste={(event) => {
          const labels = event.clipboardData
            .getData('text/plain')
            .split(/[\r\n]+/)
            .map((label) => label.trim())
            .filter(Boolean);
          if (labels.length < 2) return;
          event.preventDefault();
          set(withLabels(options, labels));
        }}
      />
    </div>
  );
}

function withColour({ colour: _, ...option }: ChoiceOption, colour: OptionColour | ''): ChoiceOption {
  return colour === '' ? option : { ...option, colour };
}

/**
 * Options with further ones, each with a key of its own; a label that is there already is not added
 * again.
 */
function withLabels(options: readonly ChoiceOption[], labels: readonly string[]): readonly ChoiceOption[] {
  const made = [...options];
  for (const label of labels) {
    if (made.some((option) => option.label === label)) continue;
    made.push({ key: freshKey(label, new Set(made.map((option) => option.key))), label: label.slice(0, 200) });
  }
  return made;
}
