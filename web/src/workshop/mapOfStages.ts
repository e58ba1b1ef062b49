import { type Stage, stagesToMoveTo } from '@tolvek/core/register';

export const PHASES = ['arrived', 'working', 'paused', 'finished'] as const;

/** Sizes of the map, px. */
export const BOX = { width: 148, height: 36, across: 42, down: 16, top: 26 } as const;

interface Box {
  readonly key: string;
  readonly label: string;
  readonly x: number;
  readonly y: number;
  readonly column: number;
  /** Whether a request goes on from here to any stage: nothing is said of its ways. */
  readonly isFree: boolean;
}

interface Way {
  readonly from: string;
  readonly to: string;
  /** An SVG path. */
  readonly path: string;
  /** `people`: a move that somebody makes; `decision`: what comes of one. */
  readonly by: 'people' | 'decision';
  /** Whether only some may, or something has to be so before. */
  readonly isGuarded: boolean;
}

/** A register’s stages as a map: by phase from left to right, with the ways between them. */
export interface StageMap {
  readonly boxes: readonly Box[];
  readonly ways: readonly Way[];
  readonly width: number;
  readonly height: number;
}

/** Lays out the stages that are in use, and the ways that are said. */
export function mapOf(stages: readonly Stage[]): StageMap {
  const used = stages.filter(({ retired }) => !retired);
  const columns = PHASES.map((phase) => used.filter((stage) => stage.phase === phase));
  const boxes = columns.flatMap((column, at) =>
    column.map(
      (stage, row): Box => ({
        ...{ key: stage.key, label: stage.label, column: at },
        x: at * (BOX.width + BOX.across),
        y: BOX.top + row * (BOX.height + BOX.down),
        isFree: stage.moves === undefined && stagesToMoveTo(used, stage).length > 0,
      }),
    ),
  );
  const boxOf = (key: string): Box | undefined => boxes.find((box) => box.key === key);
  const way = (from: string, to: string, by: Way['by'], isGuarded = false): Way[] => {
    const [start, end] = [boxOf(from), boxOf(to)];
    return start && end && from !== to ? [{ from, to, by, isGuarded, path: pathBetween(start, end) }] : [];
  };
  const moves = used.flatMap((stage) => {
    const open = new Set(stagesToMoveTo(used, stage).map(({ key }) => key));
    return (stage.moves ?? []).flatMap((move) =>
      open.has(move.to)
        ? way(
            stage.key,
            move.to,
            'people',
            move.relations.length + move.groups.length + move.filled.length > 0 || move.when.trim() !== '',
          )
        : [],
    );
  });
  const deciding = used.find(({ role }) => role === 'deciding');
  const first = used.find(({ phase, role }) => phase === 'arrived' && !role);
  const refused = used.find(({ role }) => role === 'refused');
  const decided = deciding
    ? [
        ...(first ? way(deciding.key, first.key, 'decision') : []),
        ...(refused ? way(deciding.key, refused.key, 'decision') : []),
      ]
    : [];
  const rows = Math.max(1, ...columns.map((column) => column.length));
  return {
    boxes,
    ways: [...moves, ...decided],
    width: PHASES.length * (BOX.width + BOX.across) - BOX.across,
    height: BOX.top + rows * (BOX.height + BOX.down),
  };
}

/**
 * From the side of one box to the side of another; within a column around the right of both, and over
 * columns between them under the row it starts in. No way runs behind a box that it doesn’t lead to.
 */
function pathBetween(from: Box, to: Box): string {
  const [y, toY] = [from.y + BOX.height / 2, to.y + BOX.height / 2];
  if (from.column === to.column) {
    const side = from.x + BOX.width;
    return `M ${side} ${y} C ${side + 34} ${y}, ${side + 34} ${toY}, ${side} ${toY}`;
  }
  const ahead = to.column > from.column;
  const [x, toX] = [from.x + (ahead ? BOX.width : 0), to.x + (ahead ? 0 : BOX.width)];
  if (Math.abs(to.column - from.column) === 1) return `M ${x} ${y} ${curve(x, y, toX, toY)}`;
  const across = ahead ? BOX.across : -BOX.across;
  // Ways ahead and ways back, the nearer and the farther, lie beside each other.
  const lane = from.y + BOX.height + BOX.down / 2 + (ahead ? -1 : 1) * (Math.abs(to.column - from.column) - 1) * 2;
  return [
    `M ${x} ${y} ${curve(x, y, x + across, lane)}`,
    `L ${toX - across} ${lane} ${curve(toX - across, lane, toX, toY)}`,
  ].join(' ');
}

/** A curve that leaves and arrives level. */
function curve(x: number, y: number, toX: number, toY: number): string {
  const bend = (toX - x) / 2;
  return `C ${x + bend} ${y}, ${toX - bend} ${toY}, ${toX} ${toY}`;
}
