import {
  type Active,
  type Announcements,
  type CollisionDetection,
  closestCenter,
  DndContext,
  DragOverlay,
  type KeyboardCoordinateGetter,
  KeyboardSensor,
  MeasuringStrategy,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import type { AnswerOf } from '@tolvek/contract';
import { createContext, type ReactNode, useContext, useMemo, useState } from 'react';
import { createPortal } from 'react-dom';
import { say, told } from '../../wire/words.ts';
import { floorApi } from '../endpoints.ts';
import type { Way } from './boardMoves.ts';

type Sheet = AnswerOf<'sheet'>;

/** What is lifted, with its sheet as soon as that is there: it says where it may be put. */
export interface Lifted {
  readonly number: string;
  readonly sheet: Sheet | undefined;
}
const LiftedContext = createContext<Lifted | null>(null);
export const useLifted = (): Lifted | null => useContext(LiftedContext);

const BY_POINTER = { activationConstraint: { distance: 4 } };
// A finger that moves at once scrolls.
const BY_TOUCH = { activationConstraint: { delay: 300, tolerance: 6 } };

/** With an arrow key, what is lifted goes to the nearest place in that direction. */
const toNextPlace: KeyboardCoordinateGetter = (event, { context }) => {
  const steps: Readonly<Record<string, readonly [number, number]>> = {
    ...{ ArrowRight: [1, 0], ArrowLeft: [-1, 0], ArrowDown: [0, 1], ArrowUp: [0, -1] },
  };
  const step = steps[event.code];
  const here = context.collisionRect;
  if (!step || !here) return undefined;
  event.preventDefault();
  const [across, down] = step;
  const middle = ({ left, top, width, height }: typeof here) => ({ x: left + width / 2, y: top + height / 2 });
  const over = context.over ? context.droppableRects.get(context.over.id) : undefined;
  const now = middle((over ?? here) as typeof here);
  const places = context.droppableContainers.getEnabled().flatMap(({ id }) => {
    const rect = context.droppableRects.get(id);
    if (!rect) return [];
    const { x, y } = middle(rect as typeof here);
    const [ahead, aside] =
      across === 0 ? [(y - now.y) * down, Math.abs(x - now.x)] : [(x - now.x) * across, Math.abs(y - now.y)];
    return ahead > 2 ? [{ rect, far: ahead + aside * 3 }] : [];
  });
  const [next] = places.sort((a, b) => a.far - b.far);
  return next
    ? {
        x: next.rect.left + (next.rect.width - here.width) / 2,
        y: next.rect.top + (next.rect.height - here.height) / 2,
      }
    : undefined;
};
const BY_KEYS = {
  coordinateGetter: toNextPlace,
  // Enter opens what is chosen: only the space bar lifts it.
  keyboardCodes: { start: ['Space'], cancel: ['Escape', 'Tab'], end: ['Space', 'Enter'] },
};

/** Places move while something is lifted: a page is scrolled, or says more. */
const MEASURED = { droppable: { strategy: MeasuringStrategy.Always } };

/** Under the pointer; without one, what is nearest. */
const whereItIs: CollisionDetection = (given) =>
  given.pointerCoordinates ? pointerWithin(given) : closestCenter(given);

/** What something that can be lifted is, and what a place is called: as `data` of what is dragged and where it is put. */
export interface Slip {
  readonly number: string;
  readonly called: string;
}
export interface Place {
  readonly called: string;
}
const slipOf = (active: Active): Slip | undefined => active.data.current as Slip | undefined;

interface LiftingProps {
  /** Whether it may be put somewhere, by the id of the place. */
  readonly wayTo: (sheet: Sheet, place: string) => Way;
  /** Puts it there. */
  readonly put: (sheet: Sheet, place: string) => void;
  /** Says why it can’t be. */
  readonly refuse: (why: string) => void;
  /** How what is lifted looks, by its number. */
  readonly overlay: (number: string) => ReactNode;
  readonly children: ReactNode;
}

/** Lets something be lifted and put elsewhere, by pointer and by keyboard; where it may go is said before it is let go. */
export function Lifting({ wayTo, put, refuse, overlay, children }: LiftingProps) {
  const [number, setNumber] = useState<string | null>(null);
  const { data: sheet } = floorApi.useSheetQuery({ number: number ?? '' }, { skip: number === null });
  const sensors = useSensors(
    useSensor(MouseSensor, BY_POINTER),
    useSensor(TouchSensor, BY_TOUCH),
    useSensor(KeyboardSensor, BY_KEYS),
  );
  const lifted = useMemo(
    () => (number === null ? null : { number, sheet: sheet?.number === number ? sheet : undefined }),
    [number, sheet],
  );
  const announcements: Announcements = {
    onDragStart: ({ active }) => say('views:lifted', { what: slipOf(active)?.called ?? '' }),
    onDragOver: ({ over }) => {
      if (!over) return undefined;
      const called = (over.data.current as Place | undefined)?.called ?? '';
      const way = lifted?.sheet ? wayTo(lifted.sheet, String(over.id)) : 'open';
      return typeof way === 'object' ? `${called}: ${told(way.whyNot)}` : called;
    },
    onDragEnd: () => say('views:letGo'),
    onDragCancel: () => say('views:putBackWhereItWas'),
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={whereItIs}
      measuring={MEASURED}
      accessibility={{ announcements, screenReaderInstructions: { draggable: say('views:howToLift') } }}
      onDragStart={({ active }) => setNumber(slipOf(active)?.number ?? null)}
      onDragCancel={() => setNumber(null)}
      onDragEnd={({ over }) => {
        const at = lifted;
        setNumber(null);
        if (!over || !at) return;
        // What it says is known when it is let go, or it is let go too soon.
        if (!at.sheet) {
          refuse(say('views:tooSoon'));
          return;
        }
        const way = wayTo(at.sheet, String(over.id));
        if (way === 'open') put(at.sheet, String(over.id));
        else if (way !== 'here') refuse(told(way.whyNot));
      }}
    >
      <LiftedContext value={lifted}>{children}</LiftedContext>
      {createPortal(
        <DragOverlay dropAnimation={null}>{number === null ? null : overlay(number)}</DragOverlay>,
        // What holds the places may have an origin of its own.
        document.body,
      )}
    </DndContext>
  );
}
