import type { CoffeeSheet } from '@tempera/contract/coffee';
import { AGE_DOUBT_DAYS, type Freshness } from '@tempera/core/coffee';
import { BandRow } from '../ui/BandRow.tsx';

/** Age in days against the coffee's prime, with the doubt of a date that names no hour. */
export function FreshBand({ freshness, coffee }: { freshness: Freshness; coffee: CoffeeSheet }) {
  const { ageDays } = freshness;
  return (
    <BandRow
      name="Age"
      unit="d"
      value={ageDays}
      window={{ low: coffee.restDays, high: coffee.primeDays }}
      doubt={{ low: ageDays - AGE_DOUBT_DAYS, high: ageDays + AGE_DOUBT_DAYS }}
    />
  );
}
