import { Text } from '@mantine/core';
import { paceHelp, paceOf, type PaceHelp } from '@tempera/core/house';
import { useBar } from '../bar/index.ts';
import { useSheets } from '../kernel/sheets.ts';
import { knownDrinks, pacedDrink, stationsOf, stationWord } from './drinks.ts';
import { useRecipesInForce } from './queries.ts';

const helpWord: Record<PaceHelp['what'], string> = {
  hands: 'a second pair of hands',
  spare: 'a spare portafilter filled ahead',
  both: 'both',
};

/** In a rush: what holds the bar up, and what would help. @param people behind the bar */
export function PaceInRush({ people }: { people: number }) {
  const { data: bar } = useBar();
  const { data: drinks } = useSheets('drink');
  const { data: recipes } = useRecipesInForce();
  if (!bar || !drinks || !recipes) return null;
  const paced = knownDrinks(drinks, recipes).map((drink) => pacedDrink(drink, bar));
  const stations = stationsOf(bar, people);
  const pace = paceOf(paced, stations);
  if (!pace) return null;
  const help = paceHelp(paced, stations).map(
    ({ what, drinksPerHour }) => `${helpWord[what]} about ${Math.round(drinksPerHour)}`,
  );
  return (
    <Text>
      {people} behind the bar: about {Math.round(pace.drinksPerHour)} drinks an hour, held up by{' '}
      {stationWord[pace.bottleneck]}. {help.length > 0 && `With ${help.join('; with ')}. `}
      The shot keeps its time.
    </Text>
  );
}
