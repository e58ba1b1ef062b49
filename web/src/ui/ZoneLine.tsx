import type { ComponentProps } from 'react';
import { ChoiceLine } from './ChoiceLine.tsx';

/** The zones of the world (IANA), as this browser knows them. */
const ZONES: readonly string[] = ['UTC', ...Intl.supportedValuesOf('timeZone').filter((zone) => zone !== 'UTC')];

/** A time zone, chosen from all there are; one that this browser does not know stays. */
export const ZoneLine = (props: Omit<ComponentProps<typeof ChoiceLine<string>>, 'options'>) => (
  <ChoiceLine {...props} options={[...new Set([props.value, ...ZONES])].map((key) => ({ key, label: key }))} />
);
