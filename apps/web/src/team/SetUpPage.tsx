import { Button, Stack, Text, TextInput, Title } from '@mantine/core';
import { newCafeSchema } from '@tempera/contract/team';
import { cafeSheetSchema } from '@tempera/contract/house';
import { useState } from 'react';
import { v4 as uuidv4 } from 'uuid';
import { sentenceOf } from '../kernel/api.ts';
import { SheetFields, useSheetForm } from '../forms/index.ts';
import { cafeFields } from '../house/index.ts';
import { PinField } from './PinField.tsx';
import { useSetUp } from './queries.ts';

const EIGHT = 480;

/** The first thing on an empty server: a café, and its head barista. */
export default function SetUpPage() {
  const { timeZone } = Intl.DateTimeFormat().resolvedOptions();
  const sheetForm = useSheetForm(cafeSheetSchema, cafeFields, {
    name: '',
    timeZone,
    opensMin: EIGHT,
    closesMin: 2 * EIGHT + 120,
    dayStartsMin: EIGHT / 2,
    altitudeM: 0,
    currency: 'EUR',
    unitSchool: 'metric',
  });
  const [ids] = useState(() => ({ cafe: uuidv4(), head: uuidv4() }));
  const [head, setHead] = useState({ name: '', pin: '' });
  const [code, setCode] = useState('');
  const [again, setAgain] = useState('');
  const [asked, setAsked] = useState(false);
  const setUp = useSetUp();
  const wanted = newCafeSchema.safeParse({
    id: ids.cafe,
    code,
    cafe: sheetForm.sheet,
    head: { id: ids.head, ...head },
  });
  const differs = head.pin !== again;
  const errorAt = (path: string): string | undefined =>
    asked ? wanted.error?.issues.find((issue) => issue.path.join('.') === path)?.message : undefined;
  return (
    <Stack gap="md">
      <div>
        <Title order={1}>Set up this café</Title>
        <Text className="faint">Nothing is on this server yet. Say who you are, and the bar is built from here.</Text>
      </div>
      <section className="sheet" aria-label="The café">
        <SheetFields sheetForm={sheetForm} />
      </section>
      <Stack component="section" className="sheet" aria-label="The head barista">
        <TextInput
          size="md"
          label="Your name, as the bar calls you"
          value={head.name}
          onChange={(event) => setHead({ ...head, name: event.currentTarget.value })}
          error={errorAt('head.name')}
        />
        <PinField
          label="A PIN of 4 to 8 digits"
          description="No row, no year, no pattern: others would try those first."
          value={head.pin}
          onChange={(pin) => setHead({ ...head, pin })}
          error={errorAt('head.pin')}
        />
        <PinField
          label="The PIN once more"
          value={again}
          onChange={setAgain}
          error={asked && differs ? 'The two differ. Type both again.' : undefined}
        />
        <PinField
          label="The set-up code"
          description="The server printed it when it was started."
          value={code}
          onChange={setCode}
          error={errorAt('code')}
          shown
        />
        {setUp.error && (
          <Text role="alert" c="var(--out)">
            {sentenceOf(setUp.error)}
          </Text>
        )}
        <Button
          size="lg"
          loading={setUp.isPending}
          onClick={() => {
            setAsked(true);
            if (sheetForm.check() && wanted.success && !differs) setUp.mutate(wanted.data);
          }}
        >
          Begin
        </Button>
      </Stack>
    </Stack>
  );
}
