import { Button, Group, Stack, Text, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { gramsUsed } from '@tempera/core/coffee';
import { factsSince, stepsOf } from '@tempera/core/facts';
import { faultsOf, grinderSigned, may, rightsOf, type GrinderSigned } from '@tempera/core/opening';
import { Link } from 'react-router';
import { aimWord, setWord } from '../house/index.ts';
import { tasteWord } from '../taste/index.ts';
import { useWriteStep } from '../kernel/facts.tsx';
import { BandRow } from '../ui/BandRow.tsx';
import { cupWord, moment, percent } from '../kernel/format.ts';
import { Empty, Failed, Loading } from '../ui/Notice.tsx';
import { ClosedCards } from './ClosedCards.tsx';
import classes from './Opening.module.css';
import { signatureOf, signedWord } from './signature.ts';
import { useMorning, type MorningView } from './useMorning.ts';
import { faultWord, jobTitle, usedWord } from './words.ts';
import { useCrossCheck } from './steps/GroupCheckStep.tsx';

/** As much of a line as the fact keeps. */
const LONGEST_LINE = 400;

/** Every station on one page, what is not right said plainly, and the head's name under it. */
export function SignOffPage({ session }: { session: Session }) {
  const { bar, view, error, retry } = useMorning(session);
  if (!bar) return error ? <Failed error={error} onRetry={retry} /> : <Loading what="the page to sign" />;
  return (
    <>
      <Title order={1} mb="sm">
        Sign-off
      </Title>
      {view ? (
        <Page view={view} session={session} />
      ) : (
        <Empty>No opening is planned, so there is nothing to sign.</Empty>
      )}
    </>
  );
}

function Page({ view, session }: { view: MorningView; session: Session }) {
  const write = useWriteStep();
  const jobs = new Map(view.states.map((state) => [state.job.key, state.job]));
  const all = faultsOf(view.states).flatMap((fault) => {
    const job = jobs.get(fault.key);
    return job ? [{ fault, job }] : [];
  });
  const open = all.filter(({ fault }) => fault.kind === 'open').map(({ job }) => jobTitle(job, view));
  const faults = [
    ...all.filter(({ fault }) => fault.kind !== 'open').map(({ fault, job }) => faultWord(fault, job, view)),
    ...(open.length === 0 ? [] : [`Not done: ${open.join('; ')}.`]),
  ];
  const signed = view.states.find(({ job }) => job.kind === 'signOff');
  const done = signatureOf(view);
  const grinders = view.bar.grinders.map((grinder) => ({
    grinder,
    page: grinderSigned(grinder.id, view.facts, view.morning.fromMs),
  }));
  const used = gramsUsed(view.facts, { fromMs: view.morning.fromMs });
  const mended = stepsOf(factsSince(view.facts, view.morning.fromMs), 'mended').map(
    ({ body }) => `${view.nameOf(body.groupId)}, its ${body.what}`,
  );
  const maySign = signed !== undefined && may(rightsOf(session.person.role), signed.job);
  const { timeZone } = session.site;
  const closing = view.morning.run === 'closing';
  return (
    <Stack>
      <section aria-label="What is not right" className="sheet">
        <Title order={2} size="h3">
          {all.length === 0 ? 'Everything is right' : `${all.length} not right`}
        </Title>
        <ul className={classes.then}>
          {faults.map((says) => (
            <li key={says}>{says}</li>
          ))}
        </ul>
      </section>
      {closing ? (
        <ClosedCards view={view} session={session} />
      ) : (
        <div className={classes.signed}>
          {grinders.map(({ grinder, page }) => (
            <GrinderCard key={grinder.id} grinder={grinder} page={page} view={view} timeZone={timeZone} />
          ))}
        </div>
      )}
      {!closing && <GroupsCard view={view} />}
      {mended.length > 0 && <Text>Mended on the way: {mended.join('; ')}.</Text>}
      {!closing && <Text>{usedWord(used)} of coffee since the run began.</Text>}
      {done ? (
        <Text size="lg" fw={600}>
          {signedWord(done, view, timeZone)}
        </Text>
      ) : (
        <Group>
          <Button
            size="xl"
            disabled={!maySign}
            onClick={() => write({ step: 'signedOff', notRight: faults.map((says) => says.slice(0, LONGEST_LINE)) })}
          >
            {faults.length === 0 ? (closing ? 'Sign the closing' : 'Sign the bar off') : 'Sign it off as it stands'}
          </Button>
          {!maySign && (
            <Text className="faint">
              {signed?.job.who === 'head'
                ? 'Only a head barista signs. Ask one to sign in here.'
                : 'Whoever holds a shift signs. Ask one to sign in here.'}
            </Text>
          )}
        </Group>
      )}
      <Group>
        {!closing && (
          <Button component={Link} to="/house/wall" variant="default">
            The wall card, to print
          </Button>
        )}
        <Button component={Link} to="/opening" variant="default">
          Back to the run
        </Button>
      </Group>
    </Stack>
  );
}

function GrinderCard({
  grinder,
  page,
  view,
  timeZone,
}: {
  grinder: MorningView['bar']['grinders'][number];
  page: GrinderSigned;
  view: MorningView;
  timeZone: string;
}) {
  const { recipe, before } = grinder;
  const { set, shots, taste, used, tookMin } = page;
  return (
    <section aria-label={grinder.name} className="sheet">
      <Title order={2} size="h3">
        {grinder.name} <span className="faint">{grinder.coffee}</span>
      </Title>
      {set === null ? (
        <Text>Not dialled in yet.</Text>
      ) : (
        <Text>
          {setWord(grinder, set)}, {percent(set.lock.body.chance)} sure
          {set.changed && '; changed since, and not yet confirmed'}
        </Text>
      )}
      <Text>
        {cupWord(recipe)}
        {before && `. ${aimWord(before)}`}
      </Text>
      {shots.map((shot) => (
        <BandRow
          key={shot.id}
          name={view.nameOf(shot.groupId)}
          unit="s"
          value={shot.body.timeS}
          window={{ low: recipe.timeMinS, high: recipe.timeMaxS }}
        />
      ))}
      {taste && <Text>Taste: {tasteWord(taste)}.</Text>}
      <Text className="faint">
        {[
          used.totalG > 0 ? usedWord(used) : '',
          tookMin === null ? '' : `${Math.max(1, Math.round(tookMin))} min`,
          set ? view.nameOf(set.lock.personId) : '',
          set ? moment(Date.parse(set.lock.at), timeZone, view.nowMs) : '',
        ]
          .filter(Boolean)
          .join(', ')}
      </Text>
    </section>
  );
}

function GroupsCard({ view }: { view: MorningView }) {
  const { shots, diagnosis } = useCrossCheck(view);
  const groups = view.bar.machines.flatMap((machine) => machine.groups);
  const window = { low: -2.5, high: 2.5 };
  return (
    <section aria-label="Groups" className="sheet">
      <Title order={2} size="h3">
        Groups
      </Title>
      {groups.map(({ id, name }) => {
        const effect = diagnosis.groups.find((group) => group.id === id);
        const seen = shots.some(({ group }) => group === id);
        return (
          <BandRow
            key={id}
            name={name}
            unit="s"
            value={seen && effect ? effect.offS : null}
            missing="not pulled on"
            window={window}
            doubt={seen && effect ? { low: effect.offS - effect.sdS, high: effect.offS + effect.sdS } : undefined}
          />
        );
      })}
    </section>
  );
}
