import { Stack, Text, Title } from '@mantine/core';
import type { PolicyVersion } from '@tempera/contract/policy';
import type { Session } from '@tempera/contract/team';
import { moment } from '../kernel/format.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { HouseTabs } from './HouseTabs.tsx';
import classes from './Policies.module.css';
import { PolicyForm } from './PolicyForm.tsx';
import { policyChanges, policyLine } from './policyWords.ts';
import { usePolicies } from './queries.ts';

/** The house's schools: what is chosen, what it does to the advice, and who chose what before. */
export function PoliciesPage({ session }: { session: Session }) {
  const { data, error, refetch } = usePolicies();
  const current = data?.versions[0];
  if (error && !current) return <Failed error={error} onRetry={() => void refetch()} />;
  if (!data || !current) return <Loading what="the house book" />;
  return (
    <Stack gap="md">
      <HouseTabs />
      <div>
        <Title order={1}>How the house decides</Title>
        <Text className="faint">
          Good houses differ here. Every advice follows what is chosen, on every bench, from the next look on.
        </Text>
      </div>
      <PolicyForm current={current} mayChange={session.person.role === 'head'} />
      <section aria-labelledby="before">
        <Title order={2} size="h3" id="before">
          Chosen before
        </Title>
        <ol className={classes.versions}>
          {data.versions.map((version, i) => (
            <Version
              key={version.version}
              version={version}
              before={data.versions[i + 1] ?? null}
              timeZone={session.site.timeZone}
            />
          ))}
        </ol>
      </section>
    </Stack>
  );
}

interface VersionProps {
  version: PolicyVersion;
  before: PolicyVersion | null;
  timeZone: string;
}

function Version({ version, before, timeZone }: VersionProps) {
  const nowMs = useNow();
  const { changedAt, changedBy, reason } = version;
  const when = changedAt === null ? 'from the start' : moment(Date.parse(changedAt), timeZone, nowMs);
  return (
    <li>
      <Text fw={600}>{before === null ? policyLine(version) : policyChanges(before, version).join('; ')}</Text>
      <Text className="faint">
        {when}
        {changedBy && `, ${changedBy}`}
        {reason && `: ${reason}`}
      </Text>
    </li>
  );
}
