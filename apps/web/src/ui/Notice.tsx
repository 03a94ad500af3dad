import { Button, Skeleton, Stack, Text } from '@mantine/core';
import { IconAlertTriangle } from '@tabler/icons-react';
import type { ReactNode } from 'react';
import { sentenceOf } from '../kernel/api.ts';

/** A failed read, with what to do. */
export function Failed({ error, onRetry }: { error: unknown; onRetry: () => void }) {
  return (
    <Stack className="sheet" role="alert" align="flex-start">
      <Text>{sentenceOf(error)}</Text>
      <Button variant="default" onClick={onRetry}>
        Try again
      </Button>
    </Stack>
  );
}

export function Loading({ what }: { what: string }) {
  return (
    <Stack aria-busy="true" aria-live="polite">
      <span className="visually-hidden">Loading {what}</span>
      <Skeleton height={72} />
      <Skeleton height={320} />
    </Stack>
  );
}

export function Empty({ children }: { children: ReactNode }) {
  return (
    <Text className="sheet faint" component="div">
      {children}
    </Text>
  );
}

/** The usual caution, one line, where the step is. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <Text size="xs" className="faint" component="p" m={0}>
      <IconAlertTriangle size={16} aria-hidden="true" style={{ verticalAlign: '-3px', marginRight: 6 }} />
      {children}
    </Text>
  );
}

/** What went wrong with something that was just tried, beside it. */
export function ErrorLine({ error }: { error: unknown }) {
  return (
    <Text role="alert" c="var(--danger-ink)">
      {sentenceOf(error)}
    </Text>
  );
}
