import { Text } from '@mantine/core';
import type { ReactNode } from 'react';

/** Something is wrong, and what to do about it. */
export function Warn({ children }: { children: ReactNode }) {
  return (
    <Text role="alert" c="var(--out)" fw={600}>
      {children}
    </Text>
  );
}
