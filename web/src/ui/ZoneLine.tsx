import { Line } from './Line.tsx';

/** The zones of the world (IANA), as this browser knows them. */
const ZONES: readonly string[] = ['UTC', ...Intl.supportedValuesOf('timeZone').filter((zone) => zone !== 'UTC')];

interface ZoneLineProps {
  readonly id: string;
  readonly label: string;
  readonly hint?: string;
  readonly error: unknown;
  readonly field: string;
  readonly zone: string;
  readonly choose: (zone: string) => void;
}

/** A time zone, chosen from all there are; one that this browser does not know stays. */
export const ZoneLine = ({ id, label, hint, error, field, zone, choose }: ZoneLineProps) => (
  <Line {...{ id, label, error, field }} {...(hint === undefined ? {} : { hint })}>
    {(about) => (
      <select {...about} className="input" value={zone} onChange={(event) => choose(event.target.value)}>
        {[...new Set([zone, ...ZONES])].map((each) => (
          <option key={each}>{each}</option>
        ))}
      </select>
    )}
  </Line>
);
