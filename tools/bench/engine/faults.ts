import {
  diagnoseByEngine,
  diagnoseByHand,
  drawFaultyBar,
  type FaultVerdict,
  type FaultyBar,
} from '@tempera/core/practice';
import type { Figure } from '../figure.ts';
import { mean, percentOf } from '../statistics.ts';

const BARS = 1_000;

interface Told {
  bar: FaultyBar;
  verdict: FaultVerdict;
}

const names = ({ verdict }: Told): boolean => verdict.finding.kind === 'grinder' || verdict.finding.kind === 'group';
const isRight = ({ bar, verdict }: Told): boolean =>
  verdict.finding.kind === bar.fault?.kind && verdict.finding.id === bar.fault.id;

/** Bars of three grinders and three groups with one thing off by 9-15 %, and as many sound ones. */
export function measureFaults(): Figure[] {
  const told = (faulty: boolean, way: (bar: FaultyBar) => FaultVerdict): Told[] =>
    Array.from({ length: BARS }, (_, i) => {
      const bar = drawFaultyBar(i + 1, faulty);
      return { bar, verdict: way(bar) };
    });
  const row = (name: string, way: (bar: FaultyBar) => FaultVerdict): Figure[] => {
    const faulty = told(true, way);
    const sound = told(false, way);
    const cell = (column: string, value: number, unit = '%'): Figure => ({
      name: `faults, ${name}: ${column}`,
      value,
      unit,
      cell: { table: 'faults on a 3 x 3 bar', row: name, column },
    });
    return [
      cell('named', percentOf(faulty, names)),
      cell('right', percentOf(faulty.filter(names), isRight)),
      cell('alarms', percentOf(sound, names)),
      cell('shots', mean(faulty.map(({ verdict }) => verdict.shots)), ''),
    ];
  };
  const engine = row('engine', diagnoseByEngine);
  const of = (column: string): number => engine.find(({ cell }) => cell?.column === column)?.value ?? NaN;
  return [
    ...engine,
    ...row('ten shots by hand', diagnoseByHand),
    { name: 'faults named', value: of('named'), unit: '%', aim: 'at least 60' },
    { name: 'faults: right among the named', value: of('right'), unit: '%', aim: 'at least 90' },
    { name: 'false alarms on sound bars', value: of('alarms'), unit: '%', aim: 'at most 5' },
  ];
}
