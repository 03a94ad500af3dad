import { useLocalStorage } from '@mantine/hooks';

/** The hand that works at this tablet. */
export type Hand = 'right' | 'left';

/** Which hand it is: what is tapped most stands on its side of a wide screen. */
export function useHand(): [Hand, (hand: Hand) => void] {
  const [hand, setHand] = useLocalStorage<Hand>({
    key: 'tempera.hand',
    defaultValue: 'right',
    // Known before the first page is drawn: nothing changes sides under a finger.
    getInitialValueInEffect: false,
  });
  return [hand, setHand];
}
