import { momentInWords } from '../deadline/index.ts';
import { audienceInWords } from '../people/index.ts';
import { type DoorDesign, type DoorLimit, manyRequests } from './door.ts';

function limitInWords({ most, of, days }: DoorLimit): string {
  const long = days === null ? '' : days === 1 ? ' a day' : ` in ${days} days`;
  return `At most ${manyRequests(most)}${of === 'each' ? ' from each person' : ''}${long}.`;
}

/** What a door is set to, in sentences: who comes in, how, when, and how many. `zone`: an IANA name. */
export function doorInWords(door: DoorDesign, nameOf: (group: string) => string, zone: string): readonly string[] {
  const { audience, proof, opensAt, closesAt, limits } = door;
  const isAll = 'everyone' in audience.in && audience.outOf.length === 0;
  const who = isAll ? '' : audienceInWords(audience, nameOf);
  return [
    proof === 'sign-in'
      ? `Admits signed-in staff${who && `: ${who}`}.`
      : `Admits ${who ? `${who} with the link` : 'anyone with the link'}; they confirm their address by a letter.`,
    ...(opensAt === null ? [] : [`Opens ${momentInWords(opensAt, zone)}.`]),
    ...(closesAt === null ? [] : [`Closes ${momentInWords(closesAt, zone)}.`]),
    ...limits.map(limitInWords),
  ];
}
