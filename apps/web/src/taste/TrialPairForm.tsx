import { Button, Group, Select, Stack, Text, Title } from '@mantine/core';
import type { StepOf } from '@tempera/core/facts';
import {
  preferences,
  sourBitterWords,
  weakStrongWords,
  type CupWord,
  type NextPair,
  type Preference,
  type TrialCup,
} from '@tempera/core/taste';
import { useState } from 'react';
import { degrees, grams, seconds } from '../kernel/format.ts';
import { NumberField, readQuantity, textOf } from '../ui/NumberField.tsx';
import { OneOf } from '../ui/OneOf.tsx';
import classes from './Taste.module.css';
import { betterWord, cupWord, sourBitterWord, weakStrongWord } from './trialWords.ts';

interface TrialPairFormProps {
  number: number;
  next: NextPair;
  blind: boolean;
  showsTemp: boolean;
  /** Where the collar gives this cup; null where the coffee is in no hopper. */
  markFor: (cup: TrialCup) => number | null;
  people: readonly { id: string; name: string }[];
  personId: string;
  onKeep: (pair: Omit<StepOf<'trialTasted'>, 'step' | 'trialId'>) => void;
}

const sides = ['left', 'right'] as const;
type Side = (typeof sides)[number];
const sideWord: Record<Side, string> = { left: 'Left', right: 'Right' };
const unsaid: CupWord = { sourBitter: null, weakStrong: null };

/** Two cups: first pulled, then, the numbers hidden where it is blind, tasted. */
export function TrialPairForm({
  number,
  next,
  blind,
  showsTemp,
  markFor,
  people,
  personId,
  onKeep,
}: TrialPairFormProps) {
  const [poured, setPoured] = useState<Record<Side, TrialCup> | null>(null);
  if (poured === null) {
    return <PullPair number={number} next={next} showsTemp={showsTemp} markFor={markFor} onPoured={setPoured} />;
  }
  return (
    <TastePair
      poured={poured}
      blind={blind}
      people={people}
      personId={personId}
      onBack={() => setPoured(null)}
      onKeep={(said) => onKeep({ ...poured, ...said })}
    />
  );
}

interface PullPairProps {
  number: number;
  next: NextPair;
  showsTemp: boolean;
  markFor: (cup: TrialCup) => number | null;
  onPoured: (poured: Record<Side, TrialCup>) => void;
}

/** What both cups shall be, and what they became: as meant, unless somebody says otherwise. */
function PullPair({ number, next, showsTemp, markFor, onPoured }: PullPairProps) {
  const textsOf = ({ doseG, ratio, timeS }: TrialCup) => ({
    yieldG: textOf('yieldG', Number((doseG * ratio).toFixed(1))),
    timeS: textOf('timeS', timeS),
  });
  const [texts, setTexts] = useState({ left: textsOf(next.left), right: textsOf(next.right) });
  const readOf = (side: Side) => ({
    yieldG: readQuantity(texts[side].yieldG, 'yieldG'),
    timeS: readQuantity(texts[side].timeS, 'timeS'),
  });
  const asPoured = (side: Side): TrialCup | null => {
    const { yieldG, timeS } = readOf(side);
    if (!yieldG.ok || !timeS.ok) return null;
    const meant = next[side];
    return { ...meant, ratio: Number((yieldG.value / meant.doseG).toFixed(3)), timeS: timeS.value };
  };
  const [left, right] = [asPoured('left'), asPoured('right')];
  return (
    <section className="sheet" aria-label={`Pair ${number}`}>
      <Stack>
        <div>
          <Title order={2}>Pull these two</Title>
          <Text className="faint">
            Pair {number}, about {grams(next.grams)} of coffee with what is purged.
          </Text>
        </div>
        <div className={classes.sips}>
          {sides.map((side) => {
            const cup = next[side];
            const mark = markFor(cup);
            const read = readOf(side);
            const setText = (name: 'yieldG' | 'timeS') => (text: string) =>
              setTexts((before) => ({ ...before, [side]: { ...before[side], [name]: text } }));
            return (
              <fieldset key={side} className={classes.sip}>
                <legend>{sideWord[side]}</legend>
                <Text size="lg" className="number">
                  {grams(cup.doseG)} in, {grams(cup.doseG * cup.ratio)} out, {seconds(cup.timeS)}
                  {showsTemp && `, ${degrees(cup.tempC)}`}
                </Text>
                {mark !== null && <Text className="faint">The collar at about {mark}</Text>}
                <NumberField
                  label={`${sideWord[side]}: yield`}
                  unit="g"
                  step={0.1}
                  text={texts[side].yieldG}
                  onText={setText('yieldG')}
                  error={read.yieldG.ok ? null : read.yieldG.error}
                />
                <NumberField
                  label={`${sideWord[side]}: time`}
                  unit="s"
                  step={0.1}
                  text={texts[side].timeS}
                  onText={setText('timeS')}
                  error={read.timeS.ok ? null : read.timeS.error}
                />
              </fieldset>
            );
          })}
        </div>
        <div>
          <Button size="xl" disabled={!left || !right} onClick={() => left && right && onPoured({ left, right })}>
            Both are poured
          </Button>
        </div>
      </Stack>
    </section>
  );
}

interface TastePairProps {
  poured: Record<Side, TrialCup>;
  blind: boolean;
  people: readonly { id: string; name: string }[];
  personId: string;
  onBack: () => void;
  onKeep: (said: Pick<StepOf<'trialTasted'>, 'tasterId' | 'better' | 'leftWord' | 'rightWord'>) => void;
}

/** Which is better, and, for whoever will say it, what each is like. */
function TastePair({ poured, blind, people, personId, onBack, onKeep }: TastePairProps) {
  const [tasterId, setTasterId] = useState(personId);
  const [better, setBetter] = useState<Preference | null>(null);
  const [words, setWords] = useState<Record<Side, CupWord>>({ left: unsaid, right: unsaid });
  return (
    <section className="sheet" aria-label="Taste">
      <Stack>
        <Title order={2}>Which is better?</Title>
        <OneOf
          label="Which is better"
          large
          fullWidth
          className={classes.five}
          value={better}
          options={preferences.map((value) => ({ value, label: betterWord[value] }))}
          onChange={setBetter}
        />
        <div className={classes.sips}>
          {sides.map((side) => (
            <fieldset key={side} className={classes.sip}>
              <legend>
                {sideWord[side]}
                {!blind && `: ${cupWord(poured[side])}`}
              </legend>
              <OneOf
                label={`${sideWord[side]}: sour to bitter`}
                large
                fullWidth
                className={classes.score}
                value={words[side].sourBitter}
                options={sourBitterWords.map((value) => ({ value, label: sourBitterWord[value] }))}
                onChange={(value) =>
                  setWords((before) => ({
                    ...before,
                    [side]: { ...before[side], sourBitter: value },
                  }))
                }
              />
              <OneOf
                label={`${sideWord[side]}: weak to strong`}
                large
                fullWidth
                className={classes.score}
                value={words[side].weakStrong}
                options={weakStrongWords.map((value) => ({ value, label: weakStrongWord[value] }))}
                onChange={(value) =>
                  setWords((before) => ({
                    ...before,
                    [side]: { ...before[side], weakStrong: value },
                  }))
                }
              />
            </fieldset>
          ))}
        </div>
        <Text className="faint">What each is like may stay unsaid; saying it needs fewer cups.</Text>
        <Group align="end">
          <Button
            size="xl"
            disabled={better === null}
            onClick={() => better && onKeep({ tasterId, better, leftWord: words.left, rightWord: words.right })}
          >
            Keep it
          </Button>
          <Select
            label="Who tastes"
            size="md"
            value={tasterId}
            allowDeselect={false}
            data={people.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(id) => setTasterId(id ?? personId)}
          />
          <Button variant="subtle" color="umber" onClick={onBack}>
            Back to what was poured
          </Button>
        </Group>
      </Stack>
    </section>
  );
}
