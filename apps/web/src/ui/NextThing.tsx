import { Group, Text, Title } from '@mantine/core';
import type { ReactNode } from 'react';
import classes from './NextThing.module.css';

interface NextThingProps {
  title: string;
  why: ReactNode;
  /** The links that lead there. */
  children?: ReactNode;
}

/** The one next thing, above the bar in plan: what, why, and the way there. */
export function NextThing({ title, why, children }: NextThingProps) {
  return (
    <Group className={classes.next} justify="space-between" component="section" aria-label="Next thing to do">
      <div>
        <Title order={1}>{title}</Title>
        <Text className="faint">{why}</Text>
      </div>
      {children && (
        <Group gap="xs" className={classes.ways}>
          {children}
        </Group>
      )}
    </Group>
  );
}
