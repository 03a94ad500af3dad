import type { AnyFact, DoseWay, PurgeBody, StepFact } from '@tempera/core/facts';
import { dialNumber, grams, percent, seconds } from '../kernel/format.ts';
import { stepLine } from './stepLine.ts';
import { flawWord, kindWord, sightingWord } from './words.ts';

/** A fact as a person would tell it, in one line. */
export function factLine(fact: AnyFact | StepFact, corrected: AnyFact | StepFact | null): string {
  switch (fact.kind) {
    case 'shot': {
      const { setting, doseG, yieldG, timeS, flaw } = fact.body;
      return `${grams(doseG)} in, ${grams(yieldG)} out, ${seconds(timeS)} at ${dialNumber(setting)}${flaw ? `, flawed: ${flawWord[flaw].toLowerCase()}` : ''}`;
    }
    case 'dose': {
      const { doseG, grindTimeS } = fact.body;
      if (grindTimeS !== null) return `Ground ${grams(doseG)} in ${seconds(grindTimeS)}`;
      return `${doseWayWord[fact.body.way ?? 'scale']} ${grams(doseG)}`;
    }
    case 'collarMove': {
      const { from, to, advisedTo } = fact.body;
      return `Collar from ${dialNumber(from)} to ${dialNumber(to)}${advisedTo === null || advisedTo === to ? '' : `, against advice to go to ${dialNumber(advisedTo)}`}`;
    }
    case 'purge':
      return `Purged ${grams(fact.body.purgeG)}${purgeWord(fact.body)}`;
    case 'lock':
      return `Locked at ${dialNumber(fact.body.setting)}, ${percent(fact.body.chance)} sure from ${fact.body.shotIds.length} ${fact.body.shotIds.length === 1 ? 'shot' : 'shots'}`;
    case 'newBag':
      return fact.body.roastedOn === null
        ? 'Another bag went in'
        : `Another bag went in, roasted ${fact.body.roastedOn}`;
    case 'seen':
      return sightingWord[fact.body.sign];
    case 'step':
      return stepLine(fact.body);
    case 'correction':
      return correctionLine(fact.body, corrected);
  }
}

const doseWayWord: Record<DoseWay, string> = {
  scale: 'Weighed',
  timed: 'Dosed by time, about',
  beans: 'Beans weighed in,',
  levelled: 'Struck level, about',
  line: 'Filled to the line, about',
  scoop: 'By the scoop, about',
  eye: 'Dosed by eye, about',
};

/** Where purged grounds went, when that was not away. */
function purgeWord({ into, why }: PurgeBody): string {
  if (into === 'chamber') return ', put back into the chamber';
  if (into === 'kitchen') return ', kept for the kitchen';
  if (why === 'stale') return ', stale from the night';
  return why === 'burrs' ? ', to run the burrs in' : '';
}

function correctionLine(
  body: Extract<AnyFact, { kind: 'correction' }>['body'],
  corrected: AnyFact | StepFact | null,
): string {
  const what = corrected
    ? `the ${kindWord[corrected.kind].toLowerCase()} (${factLine(corrected, null)})`
    : 'an earlier entry';
  if (body.withdrawn) return `Withdrew ${what}`;
  const { doseG, yieldG, timeS, firstDropS, flaw } = body.shot ?? {};
  const changes = [
    doseG === undefined ? '' : `dose ${grams(doseG)}`,
    yieldG === undefined ? '' : `yield ${grams(yieldG)}`,
    timeS === undefined ? '' : `time ${seconds(timeS)}`,
    firstDropS === undefined ? '' : firstDropS === null ? 'first drop not seen' : `first drop ${seconds(firstDropS)}`,
    flaw === undefined ? '' : flaw === null ? 'sound after all' : `flawed: ${flawWord[flaw].toLowerCase()}`,
  ].filter(Boolean);
  return `Corrected ${what}: ${changes.join(', ')}`;
}
