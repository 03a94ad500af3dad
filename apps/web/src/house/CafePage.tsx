import { Stack, Text, Title } from '@mantine/core';
import { cafeSheetSchema } from '@tempera/contract/house';
import type { Session } from '@tempera/contract/team';
import { boilingPointC, businessDay } from '@tempera/core/house';
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import { keepsHouse, useKeepSheet, useSheets } from '../kernel/sheets.ts';
import { SheetEditor } from '../forms/index.ts';
import { dayWord, degrees } from '../kernel/format.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { calendarFields, cafeFields } from './cafeFields.ts';
import { HouseTabs } from './HouseTabs.tsx';

/** The café itself: its clock, its day, its height, its money. */
export function CafePage({ session }: { session: Session }) {
  const { data, error, refetch } = useSheets('cafe');
  const keep = useKeepSheet('cafe');
  const navigate = useNavigate();
  const { data: people } = useSheets('person');
  const fields = useMemo(
    () => [
      ...cafeFields,
      ...calendarFields(
        (people ?? []).filter(({ retired }) => !retired).map(({ id, sheet }) => ({ value: id, label: sheet.name })),
      ),
    ],
    [people],
  );
  const current = data?.[0];
  if (error && !current) return <Failed error={error} onRetry={() => void refetch()} />;
  if (!current) return <Loading what="the café" />;
  return (
    <Stack gap="md">
      <HouseTabs />
      <Title order={1}>{current.sheet.name}</Title>
      <SheetEditor
        schema={cafeSheetSchema}
        fields={fields}
        current={current}
        fresh={{}}
        retirable={false}
        save={keepsHouse(session) ? (change) => keep(current.id, change) : null}
        onDone={() => void navigate('/house')}
        timeZone={session.site.timeZone}
        aside={(read) => <WhatFollows read={read} />}
      />
    </Stack>
  );
}

/** What the house reckons from it. */
function WhatFollows({ read }: { read: Record<string, unknown> }) {
  const nowMs = useNow();
  const sheet = cafeSheetSchema.safeParse(read);
  if (!sheet.success) return null;
  const { altitudeM, timeZone, dayStartsMin } = sheet.data;
  return (
    <Text className="faint">
      Water boils at {degrees(boilingPointC(altitudeM))} up here. By this clock the business day is{' '}
      {dayWord(businessDay(nowMs, timeZone, dayStartsMin))}.
    </Text>
  );
}
