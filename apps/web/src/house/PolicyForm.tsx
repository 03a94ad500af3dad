import { Button, Radio, Stack, Text, Textarea, Title } from '@mantine/core';
import { policyChangeSchema, policyOf, type HousePolicy, type PolicyVersion } from '@tempera/contract/policy';
import { parseNumber } from '@tempera/core/house';
import { useRef, useState } from 'react';
import { PanelBoundary } from '../ui/Boundary.tsx';
import { ApiProblem, sentenceOf } from '../kernel/api.ts';
import { NumberField } from '../ui/NumberField.tsx';
import classes from './Policies.module.css';
import { PolicyExample } from './PolicyExample.tsx';
import { policyLine, questions, type ChoiceKey } from './policyWords.ts';
import { useChangePolicy } from './queries.ts';

const PERCENT = 100;

/** What is typed, as typed. */
type Draft = Pick<HousePolicy, ChoiceKey> & Record<'sureness' | 'risk' | 'longestCheckMin', string>;

const asPercent = (share: number): string => String(Math.round(share * PERCENT * 10) / 10);
const ofPercent = (text: string): number => (parseNumber(text) ?? NaN) / PERCENT;

function draftOf(policy: HousePolicy): Draft {
  return {
    ...policyOf(policy),
    sureness: asPercent(policy.sureness),
    risk: asPercent(policy.risk),
    longestCheckMin: String(policy.longestCheckMin),
  };
}

function policyOfDraft(draft: Draft): HousePolicy {
  return {
    ...draft,
    sureness: ofPercent(draft.sureness),
    risk: ofPercent(draft.risk),
    longestCheckMin: parseNumber(draft.longestCheckMin) ?? NaN,
  };
}

/** The choices, what they would do, and a reason: saved as the next version. */
export function PolicyForm({ current, mayChange }: { current: PolicyVersion; mayChange: boolean }) {
  const form = usePolicyDraft(current, mayChange);
  const { draft, edit, wanted, numbersHold, differs, overtaken } = form;
  return (
    <div className={classes.columns}>
      <Stack className="sheet" component="section" aria-label="Choices" gap="lg">
        {!mayChange && <Text>Only a head barista changes this. What is chosen:</Text>}
        <Numbers draft={form} />
        {questions.map(({ of, asks, choices }) => (
          <Radio.Group
            key={of}
            label={asks}
            value={draft[of]}
            // The choices are the contract's own, so what is picked is one of them.
            onChange={(value) => edit({ [of]: value })}
          >
            <Stack gap="xs" mt="xs">
              {choices.map(({ value, name, says }) => (
                <Radio key={value} value={value} label={name} description={says} size="md" disabled={!mayChange} />
              ))}
            </Stack>
          </Radio.Group>
        ))}
      </Stack>
      <Stack className="sheet" component="section" aria-label="What it does" gap="md">
        <Title order={2} size="h3">
          What it does
        </Title>
        <PanelBoundary what="The example">
          <PolicyExample current={policyOf(current)} wanted={numbersHold && differs ? wanted : null} />
        </PanelBoundary>
        {overtaken && <Meanwhile current={current} form={form} />}
        {mayChange && differs && !overtaken && <Decide form={form} />}
      </Stack>
    </div>
  );
}

type PolicyDraft = ReturnType<typeof usePolicyDraft>;

/** The policy as it is chosen: nothing while nobody touched it. */
function usePolicyDraft(current: PolicyVersion, mayChange: boolean) {
  // Null: nothing was touched, and the form shows what is in force, whoever changes it.
  const [typed, setTyped] = useState<{ draft: Draft; basedOn: PolicyVersion } | null>(null);
  const [reason, setReason] = useState('');
  const change = useChangePolicy();
  const draft = typed?.draft ?? draftOf(current);
  const basedOn = typed?.basedOn ?? current;
  const wanted = policyOfDraft(draft);
  const checked = policyChangeSchema.safeParse({ ...wanted, basedOn: basedOn.version, reason });
  const errorOf = (field: string): string | null =>
    checked.success ? null : (checked.error.issues.find(({ path }) => path[0] === field)?.message ?? null);
  const numbersHold = !['sureness', 'risk', 'longestCheckMin'].some((field) => errorOf(field) !== null);
  const differs = JSON.stringify(policyOf(wanted)) !== JSON.stringify(policyOf(basedOn));
  const overtaken = typed !== null && typed.basedOn.version !== current.version;

  const edit = (edited: Partial<Draft>): void => {
    if (mayChange) setTyped({ draft: { ...draft, ...edited }, basedOn });
  };
  const letGo = (): void => {
    setTyped(null);
    setReason('');
    change.reset();
  };
  const save = (): void => {
    if (checked.success) change.mutate(checked.data, { onSuccess: letGo });
  };
  const refused = change.error instanceof ApiProblem && change.error.problem.code !== 'changedMeanwhile';
  return {
    draft,
    edit,
    wanted,
    errorOf,
    numbersHold,
    differs,
    overtaken,
    reason,
    setReason,
    goOn: () => setTyped({ draft, basedOn: current }),
    letGo,
    save: checked.success ? save : null,
    isPending: change.isPending,
    failure: refused ? sentenceOf(change.error) : null,
  };
}

/** The numbers among the choices. */
function Numbers({ draft: { draft, edit, errorOf } }: { draft: PolicyDraft }) {
  return (
    <div className={classes.numbers}>
      {draft.lockRule === 'sureness' && (
        <NumberField
          label="Sure enough"
          unit="%"
          step={1}
          text={draft.sureness}
          onText={(sureness) => edit({ sureness })}
          error={errorOf('sureness')}
        />
      )}
      <NumberField
        label="Risk at a check"
        unit="%"
        step={1}
        text={draft.risk}
        onText={(risk) => edit({ risk })}
        error={errorOf('risk')}
      />
      <NumberField
        label={draft.recheck === 'hours' ? 'Looked at every' : 'Longest wait'}
        unit="min"
        step={5}
        text={draft.longestCheckMin}
        onText={(longestCheckMin) => edit({ longestCheckMin })}
        error={errorOf('longestCheckMin')}
      />
    </div>
  );
}

/** What somebody else decided while this was written. */
function Meanwhile({ current, form: { wanted, goOn } }: { current: PolicyVersion; form: PolicyDraft }) {
  return (
    <div role="alert" className={classes.overtaken}>
      <Text fw={600}>{current.changedBy ?? 'Somebody'} changed this while you did:</Text>
      <Text>{policyLine(current)}</Text>
      <Text className="faint">Yours is kept here: {policyLine(wanted)}</Text>
      <Button variant="default" onClick={goOn}>
        Go on with mine
      </Button>
    </div>
  );
}

/** Why, and then it is decided. */
function Decide({ form }: { form: PolicyDraft }) {
  const { reason, setReason, failure, save, isPending, letGo, errorOf, numbersHold } = form;
  const [asked, setAsked] = useState(false);
  const why = useRef<HTMLTextAreaElement>(null);
  const decide = (): void => {
    setAsked(true);
    if (save) save();
    else if (errorOf('reason') !== null) why.current?.focus();
  };
  return (
    <>
      <Textarea
        ref={why}
        label="Why"
        description="In a few words, for those who find it changed."
        error={asked ? errorOf('reason') : null}
        size="md"

        rows={2}
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value)}
      />
      {(failure !== null || (asked && !numbersHold)) && (
        <Text role="alert" c="var(--out)">
          {failure ?? 'A number above does not hold: what is wrong stands beside it.'}
        </Text>
      )}
      <div className={classes.buttons}>
        <Button size="lg" onClick={decide} loading={isPending}>
          Decide so
        </Button>
        <Button size="lg" variant="default" onClick={letGo}>
          Leave it as it was
        </Button>
      </div>
    </>
  );
}
