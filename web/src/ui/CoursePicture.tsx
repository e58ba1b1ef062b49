import type { Scale } from '@tolvek/core/deadline';

/** A moment beside a line: what happens there, and whether only where it was not kept. */
export interface CourseMark {
  readonly key: string;
  readonly at: number;
  readonly words: string;
  readonly isLate: boolean;
}

/** Something that takes time: from when to when, and what is said of it. Moments are epoch ms. */
export interface CourseLine {
  readonly key: string;
  readonly name: string;
  /** What is said at its bar. */
  readonly says: string;
  readonly from: number;
  readonly to: number;
  /** It could take longer: nothing says by when it is over. */
  readonly isOpen: boolean;
  readonly marks: readonly CourseMark[];
  /** It is not asked, or does not count: drawn faintly. */
  readonly isOff: boolean;
  /** It was not kept, or is not by now. */
  readonly isLate?: boolean;
  /** When its time stood still. */
  readonly still?: readonly { readonly from: number; readonly to: number }[];
  /** What pressing its name does, and how that is said; nothing where nothing is said. */
  readonly press?: { readonly label: string; readonly does: () => void };
}

export interface CourseLane {
  readonly key: string;
  readonly head: string;
  readonly lines: readonly CourseLine[];
}

interface CoursePictureProps {
  /** What it shows, for whoever does not see it. */
  readonly label: string;
  readonly scale: Scale;
  /** Where it is now, and how that is said; nothing where it is only planned. */
  readonly now?: { readonly at: number; readonly label: string };
  readonly stagesHead: string;
  readonly stages: readonly { readonly key: string; readonly label: string; readonly at: number }[];
  readonly lanes: readonly CourseLane[];
  /** How a day is written under its line. */
  readonly day: (at: number) => string;
}

const percent = (part: number): string => `${(part * 100).toFixed(2)}%`;

/** The life of a request over working time: its stages, who decides, what it is due by. */
export function CoursePicture({ label, scale, now, stagesHead, stages, lanes, day }: CoursePictureProps) {
  const levels = levelsOf(stages.map(({ at }) => scale.place(at)));
  return (
    <figure aria-label={label} className="relative border border-rule bg-sheet px-4 pt-3 pb-2">
      <div aria-hidden="true" className="pointer-events-none absolute inset-y-0 right-4 left-[calc(9.5rem+1rem)]">
        {scale.days.map(({ at, place }) => (
          <span key={at} className="absolute inset-y-0 border-l border-rule" style={{ left: percent(place) }} />
        ))}
        {now && now.at < scale.to ? (
          <span
            title={now.label}
            className="absolute inset-y-0 border-l-2 border-brass-mark"
            style={{ left: percent(scale.place(now.at)) }}
          />
        ) : null}
      </div>
      <Row head={stagesHead}>
        <div className="relative" style={{ height: `${20 + (Math.max(0, ...levels) + 1) * 16}px` }}>
          <span className="absolute inset-x-0 top-[9px] border-t-2 border-rule-strong" />
          {stages.map(({ key, label: name, at }, index) => {
            const place = scale.place(at);
            const isRight = place > 0.8;
            return (
              <span
                key={`${key} ${at}`}
                className="absolute top-0 flex flex-col"
                style={isRight ? { right: percent(1 - place), alignItems: 'flex-end' } : { left: percent(place) }}
              >
                <span
                  className={`mt-1 size-[11px] rounded-full border-2 border-green ${index === 0 || (now && at <= now.at) ? 'bg-green' : 'bg-sheet'}`}
                />
                <span
                  className="bg-sheet text-[12px] whitespace-nowrap text-soft"
                  style={{ marginTop: `${(levels[index] ?? 0) * 16}px` }}
                >
                  {name}
                </span>
              </span>
            );
          })}
        </div>
      </Row>
      {lanes.map(({ key, head, lines }) =>
        lines.length === 0 ? null : (
          <section key={key} aria-label={head} className="mt-2 border-t border-rule pt-1">
            <h4 className="text-[11.5px] font-semibold text-soft">{head}</h4>
            {lines.map((line) => (
              <Row key={line.key} head={line.name} {...(line.press ? { press: line.press } : {})}>
                <Bar line={line} scale={scale} />
              </Row>
            ))}
          </section>
        ),
      )}
      <Row head="">
        <div className="relative h-5 text-[12px] text-soft tabular-nums">
          <span className="absolute left-0">{day(scale.from)}</span>
          {scale.days
            .filter(({ place }) => place > 0.12 && place < 0.93)
            .map(({ at, place }) => (
              <span key={at} className="absolute pl-1 whitespace-nowrap" style={{ left: percent(place) }}>
                {day(at)}
              </span>
            ))}
        </div>
      </Row>
    </figure>
  );
}

/** As much room as the name of a stage takes, as part of the whole. */
const NAME = 0.17;

/** On which line below the others each name stands, so that none covers another. */
function levelsOf(places: readonly number[]): readonly number[] {
  const ends: number[] = [];
  return places.map((place) => {
    const begins = place > 0.8 ? place - NAME : place;
    const free = ends.findIndex((end) => end <= begins);
    const level = free < 0 ? ends.length : free;
    ends[level] = begins + NAME;
    return level;
  });
}

const Row = ({
  head,
  press,
  children,
}: {
  head: string;
  press?: NonNullable<CourseLine['press']>;
  children: React.ReactNode;
}) => (
  <div className="grid grid-cols-[9.5rem_1fr] items-start">
    {press ? (
      <button
        type="button"
        aria-label={press.label}
        className="truncate pr-3 text-left text-[13.5px] font-semibold text-green underline"
        onClick={press.does}
      >
        {head}
      </button>
    ) : (
      <span className="truncate pr-3 text-[13.5px] font-semibold">{head}</span>
    )}
    {children}
  </div>
);

/** A stretch with its end, what rings around it, and what is said of it below. */
function Bar({
  line: { from, to, isOpen, says, marks, isOff, isLate, still = [] },
  scale,
}: {
  line: CourseLine;
  scale: Scale;
}) {
  const [start, end] = [scale.place(from), scale.place(to)];
  const isRight = start > 0.6;
  return (
    <div className={`relative h-9 ${isOff ? 'opacity-60' : ''}`}>
      {isOff ? null : (
        <span
          className={`absolute top-[9px] border-t-[3px] ${isOpen ? 'border-dashed border-rule-strong' : isLate ? 'border-brick' : 'border-green'}`}
          style={{ left: percent(start), right: percent(1 - end) }}
        />
      )}
      {still.map((each) => (
        <span
          key={each.from}
          className="absolute top-[9px] border-t-[3px] border-rule-strong"
          style={{ left: percent(scale.place(each.from)), right: percent(1 - scale.place(each.to)) }}
        />
      ))}
      {isOpen || isOff ? null : (
        <span
          className="absolute top-1 h-3.5 border-l-[3px] border-ink"
          style={{ left: `calc(${percent(end)} - 3px)` }}
        />
      )}
      {marks.map((mark) => (
        <span
          key={`${mark.key} ${mark.at}`}
          title={mark.words}
          className={`absolute top-1 h-3.5 border-l-2 ${mark.isLate ? 'border-brick' : 'border-soft'}`}
          style={{ left: `calc(${percent(scale.place(mark.at))} - 1px)` }}
        />
      ))}
      <span
        className="absolute top-[17px] bg-sheet px-0.5 text-[12px] whitespace-nowrap text-soft"
        style={isRight ? { right: percent(1 - end) } : { left: percent(start) }}
      >
        {says}
      </span>
    </div>
  );
}
