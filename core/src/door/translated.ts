import type { Language } from '@tolvek/words';
import { type PlacedText, type Say, sayIn, textsIn } from '../design/index.ts';
import type { DoorDesign } from './door.ts';

/** A door with all that people read at it said. */
export function doorSaid(door: DoorDesign, say: Say): DoorDesign {
  const { says, confirmation, consent } = door;
  return {
    ...door,
    closedMessage: say('closed', door.closedMessage, 'closed'),
    ...(says
      ? {
          says: {
            ...says,
            ...(says.early === undefined ? {} : { early: say('early', says.early, 'early') }),
            ...(says.full === undefined ? {} : { full: say('full', says.full, 'full') }),
            ...(says.others === undefined ? {} : { others: say('others', says.others, 'others') }),
          },
        }
      : {}),
    ...(confirmation === undefined ? {} : { confirmation: say('confirmation', confirmation, 'confirmation') }),
    ...(consent ? { consent: { ...consent, text: say('consent', consent.text, 'consent') } } : {}),
  };
}

/** A door as it is read in a language; null: as it was written. */
export const doorIn = (door: DoorDesign, language: Language | null): DoorDesign =>
  language === null || door.translations?.[language] === undefined
    ? door
    : doorSaid(door, sayIn(door.translations, language));

/** The texts of a door that people read. */
export const textsOfDoor = (door: DoorDesign): readonly PlacedText[] => textsIn((say) => doorSaid(door, say));
