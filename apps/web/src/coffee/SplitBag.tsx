import { Button, Checkbox, Group, Stack, Text, Title } from '@mantine/core';
import type { Bag } from '@tempera/contract/coffee';
import type { Session } from '@tempera/contract/team';
import { portionsOf } from '@tempera/core/coffee';
import { businessDay } from '@tempera/core/house';
import { useState } from 'react';
import { v4 as uuidv4 } from 'uuid';
import { grams } from '../kernel/format.ts';
import { useKeepSheet } from '../kernel/sheets.ts';
import { OneOf } from '../ui/OneOf.tsx';
import { ErrorLine } from '../ui/Notice.tsx';

const LONGEST_LABEL = 250;
const COUNTS = ['2', '3', '4', '5', '6'];

/** Splits a bag into portions, each a bag of its own: frozen today, thawed on the day that it is wanted. */
export function SplitBag({ bag, session, onDone }: { bag: Bag; session: Session; onDone: () => void }) {
  const keep = useKeepSheet('bag');
  const [count, setCount] = useState('4');
  const [frozen, setFrozen] = useState(true);
  const [busy, setBusy] = useState(false);
  const [failed, setFailed] = useState<unknown>(null);
  // The same ids however often it is sent: a portion is never made twice.
  const [ids] = useState(() => COUNTS.map(() => uuidv4()).concat(uuidv4()));
  const { sheet } = bag;
  const weights = portionsOf(sheet.weightG, Number(count));
  const split = async (nowMs: number): Promise<void> => {
    if (!weights) return;
    const today = businessDay(nowMs, session.site.timeZone, session.site.dayStartsMin);
    const before = sheet.freezes.map((freeze) => (freeze.until === null ? { ...freeze, until: today } : freeze));
    for (const [i, weightG] of weights.entries()) {
      const label = `${sheet.label ? `${sheet.label.slice(0, LONGEST_LABEL)}, ` : ''}portion ${i + 1} of ${weights.length}`;
      const freezes = frozen ? [...before, { on: today, until: null }] : before;
      const portion = { ...sheet, weightG, label, freezes, portionOf: bag.id };
      await keep(ids[i] ?? uuidv4(), { basedOn: 0, retired: false, sheet: portion });
    }
    await keep(bag.id, { basedOn: bag.revision, retired: bag.retired, sheet: { ...sheet, finishedOn: today } });
  };
  return (
    <Stack className="sheet" gap="sm" maw={640} component="section" aria-label="Split into portions">
      <Title order={2} size="h3">
        Split into portions
      </Title>
      <Text className="faint">Each is a bag of its own from then on, frozen and thawed by itself.</Text>
      <Group>
        <OneOf label="How many portions" value={count} options={COUNTS} onChange={setCount} />
        <Checkbox
          size="md"
          label="Into the freezer today"
          checked={frozen}
          onChange={(event) => setFrozen(event.currentTarget.checked)}
        />
      </Group>
      <Text>{weights ? `${weights.length} times ${grams(weights[0] ?? 0)}` : 'Too little for so many portions.'}</Text>
      <Group>
        <Button
          mih={48}
          variant="default"
          disabled={!weights}
          loading={busy}
          onClick={() => {
            setBusy(true);
            setFailed(null);
            split(Date.now())
              .then(onDone, setFailed)
              .finally(() => setBusy(false));
          }}
        >
          Split it
        </Button>
      </Group>
      {failed !== null && <ErrorLine error={failed} />}
    </Stack>
  );
}
