import type { Stage } from '@tolvek/core/register';
import { say } from '../wire/words.ts';
import { BOX, mapOf, PHASES } from './mapOfStages.ts';

/** The stages and the ways between them, drawn; the table below says the same in words. */
export function StageMap({ stages }: { stages: readonly Stage[] }) {
  const { boxes, ways, width, height } = mapOf(stages);
  const labelOf = (key: string): string => boxes.find((box) => box.key === key)?.label ?? key;
  return (
    <figure className="mb-4 max-w-full overflow-x-auto">
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by the keyboard */}
      <section tabIndex={0} aria-label={say('workshop:stageMap')} className="w-max">
        <svg
          width={width + 40}
          height={height + 4}
          viewBox={`-2 0 ${width + 40} ${height + 4}`}
          role="img"
          aria-label={ways
            .map(({ from, to }) => say('workshop:wayFromTo', { from: labelOf(from), to: labelOf(to) }))
            .join('; ')}
        >
          <defs>
            <marker id="way-end" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto">
              <polygon points="0,0 8,4 0,8" fill="var(--ink-soft)" />
            </marker>
          </defs>
          {PHASES.map((phase, at) => (
            <text key={phase} x={at * (BOX.width + BOX.across)} y={12} fontSize={11.5} fill="var(--ink-soft)">
              {say(`reasons:phase.${phase}`)}
            </text>
          ))}
          {ways.map(({ from, to, path, by, isGuarded }) => (
            <path
              key={`${from} ${to} ${by}`}
              d={path}
              fill="none"
              stroke="var(--ink-soft)"
              strokeWidth={isGuarded ? 2.2 : 1.2}
              strokeDasharray={by === 'decision' ? '4 3' : undefined}
              markerEnd="url(#way-end)"
            />
          ))}
          {boxes.map(({ key, label, x, y, isFree }) => (
            <g key={key}>
              <rect x={x} y={y} width={BOX.width} height={BOX.height} rx={3} fill="var(--sheet)" stroke="var(--edge)" />
              <foreignObject x={x} y={y} width={BOX.width} height={BOX.height}>
                <span className="flex h-full items-center justify-between gap-1 px-2.5 text-[13.5px]">
                  <span className="truncate">{label}</span>
                  {isFree ? (
                    <span className="shrink-0 text-[11.5px] text-soft">{say('workshop:toAnyStage')}</span>
                  ) : null}
                </span>
              </foreignObject>
            </g>
          ))}
        </svg>
      </section>
      <figcaption className="text-[12.5px] text-soft">{say('workshop:stageMapHint')}</figcaption>
    </figure>
  );
}
