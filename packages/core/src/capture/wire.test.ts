import { describe, expect, it } from 'vitest';
import { lineReader } from './lineReader.ts';
import { readingClock, spreadArrival } from './readingClock.ts';
import { asksForUnit, gramsOfLine, readScaleLine } from './scaleLine.ts';
import { packReading, unpackReading, unpackWeight } from './scalePacket.ts';

describe('lines from a wire', () => {
  it('come together from halves and apart from bursts, whatever ends them', () => {
    const read = lineReader();
    expect(read('  18.')).toEqual([]);
    expect(read('2 g\r\n18.3 g\n18.4')).toEqual(['18.2 g', '18.3 g']);
    expect(read(' g\r')).toEqual(['18.4 g']);
    expect(read('\n\n\r\n')).toEqual([]);
  });

  it('do not grow with a wire that never ends one', () => {
    const read = lineReader();
    for (let i = 0; i < 1_000; i += 1) expect(read('noise ')).toEqual([]);
    expect(read('\n7.5 g\n')).toContain('7.5 g');
  });
});

describe('a line of a scale', () => {
  it.each([
    ['18.2 g', 18.2, 'g', null],
    ['+   18.2g', 18.2, 'g', null],
    ['-0.4 g', -0.4, 'g', null],
    ['-   0.4  g', -0.4, 'g', null],
    ['ST,GS,+  0018.20  g', 18.2, 'g', true],
    ['US +18.2 g', 18.2, 'g', false],
    ['S S      100.00 g', 100, 'g', true],
    ['S D      100.00 g', 100, 'g', false],
    ['18,2 g ?', 18.2, 'g', false],
    ['0.642 oz', 0.642, 'oz', null],
    ['  1.250 kg', 1.25, 'kg', null],
    ['2.50 lb', 2.5, 'lb', null],
    ['+ 18.2', 18.2, null, null],
    ['N 1 + 18.20 ', 18.2, null, null],
    ['-0.0 g', 0, 'g', null],
  ])('reads %j', (line, value, unit, stable) => {
    expect(readScaleLine(line)).toEqual({ value, unit, stable });
  });

  it.each(['OL', 'ERROR 3', '------', 'ready', '', '12 34', '1.2.3'])('makes no weight of %j', (line) => {
    expect(readScaleLine(line)).toBeNull();
  });

  it('without a unit asks a person once, and then means what they said', () => {
    expect(asksForUnit(['0.64', 'ready', '0.65'])).toBe(true);
    expect(asksForUnit(['0.64 oz', '0.65'])).toBe(false);
    expect(asksForUnit(['ready'])).toBe(false);
    // 0.642 oz * 28.349523125 g.
    expect(gramsOfLine('0.642', 'oz')?.g).toBeCloseTo(18.2004, 3);
    // What a line says itself is believed before what was said of others.
    expect(gramsOfLine('18.2 g', 'oz')?.g).toBe(18.2);
  });
});

describe('packets of a scale', () => {
  it('carry hundredths of a gram, the clock and rest', () => {
    const packet = { g: -12.34, clockMs: 4_000_000_000, stable: true };
    expect(unpackReading(packReading(packet))).toEqual(packet);
    expect([...new Uint8Array(packReading({ g: 18.2, clockMs: 258, stable: false }).buffer)]).toEqual([
      0x1c, 0x07, 0, 0, 0x02, 0x01, 0, 0, 0,
    ]);
  });

  it('of another length, and of an overloaded scale, are none', () => {
    expect(unpackReading(new DataView(new ArrayBuffer(8)))).toBeNull();
    const over = packReading({ g: 18.2, clockMs: 0, stable: false });
    over.setUint8(8, 2);
    expect(unpackReading(over)).toBeNull();
  });

  it('of the standard service come in steps of 5 g or a hundredth of a pound', () => {
    const bytes = (...of: number[]) => new DataView(Uint8Array.from(of).buffer);
    expect(unpackWeight(bytes(0, 0xe8, 0x03))).toBe(5_000);
    expect(unpackWeight(bytes(1, 0x64, 0x00))).toBeCloseTo(453.592, 3);
    expect(unpackWeight(bytes(0, 0xff, 0xff))).toBeNull();
    expect(unpackWeight(bytes(0, 1))).toBeNull();
  });
});

describe('the time of a reading', () => {
  it('is the scale’s, however late the radio was', () => {
    const timeOf = readingClock();
    const lateMs = [30, 5, 80, 5, 200, 5, 5, 60];
    const times = lateMs.map((late, i) => timeOf(i * 100, 1_000_000 + i * 100 + late));
    times.slice(1).forEach((at, i) => expect(Math.abs(at - (1_000_000 + (i + 1) * 100 + 5))).toBeLessThan(4));
  });

  it('never lies ahead of its arrival, and is found anew after a sleep', () => {
    const timeOf = readingClock();
    timeOf(500_000, 2_000_000);
    expect(timeOf(500_100, 2_000_100)).toBe(2_000_100);
    expect(timeOf(20, 2_060_000)).toBe(2_060_000);
    expect(timeOf(120, 2_060_100)).toBe(2_060_100);
  });

  it('of a burst without times is spread since the piece before', () => {
    expect(spreadArrival(1_000, 1_200, 4)).toEqual([1_050, 1_100, 1_150, 1_200]);
    expect(spreadArrival(null, 1_200, 2)).toEqual([1_200, 1_200]);
    expect(spreadArrival(1_000, 9_000, 2)).toEqual([9_000, 9_000]);
  });
});
