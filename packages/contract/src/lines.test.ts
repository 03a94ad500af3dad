import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { adviceTool } from '../../../tools/advise.ts';
import { diagnoseTool } from '../../../tools/diagnose.ts';
import { answerLine, schemasOf, type LineTool } from '../../../tools/lines.ts';
import { traceTool } from '../../../tools/read-trace.ts';
import { lineErrorSchema } from './line.ts';

/** The three line tools, each with a good line of its own. */
const recipe = { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 } };
const tools: Record<string, { tool: LineTool<never, unknown>; good: unknown }> = {
  advise: {
    tool: adviceTool as unknown as LineTool<never, unknown>,
    good: {
      recipe,
      grinder: { stepMarks: 1, finer: 'down', secondsPerMark: 2.5, retentionG: null },
      since: { newBag: false, hours: 14 },
      now: '2031-05-04T06:31:00Z',
      shots: [
        { at: '2031-05-04T06:30:10Z', setting: 30, doseG: 18.1, yieldG: 36.4, timeS: 22.1, firstDropS: 5, purgedG: 20 },
        { setting: 28, doseG: 18, yieldG: 4, timeS: 60, fault: 'choke' },
      ],
    },
  },
  'read-trace': {
    tool: traceTool as unknown as LineTool<never, unknown>,
    good: { hz: 10, massG: [0, 0, null, 0.4, 1.1, 2.3, 3.6, 4.9, 4.9, 4.9], pumpOffS: 0.8 },
  },
  'advise in service': {
    tool: adviceTool as unknown as LineTool<never, unknown>,
    good: {
      recipe,
      grinder: { stepMarks: 1, finer: 'down', secondsPerMark: 2.5, retentionG: null },
      since: { newBag: false, hours: 4 },
      now: '2031-05-04T10:31:00Z',
      service: { endsAt: '2031-05-04T18:00:00Z', cupsPerHour: 40 },
      events: [{ at: '2031-05-04T10:02:00Z', kind: 'newBag' }],
      shots: [{ at: '2031-05-04T10:30:10Z', setting: 30, doseG: 18.1, yieldG: 36.4, timeS: 29.1 }],
    },
  },
  'advise with all that may be said': {
    tool: adviceTool as unknown as LineTool<never, unknown>,
    good: {
      recipe: { ...recipe, doseToleranceG: 0.3, firstDropS: { min: 4, max: 8 } },
      grinder: { stepMarks: 1, finer: 'up', secondsPerMark: 2.5, retentionG: 3, range: { min: 1, max: 60 } },
      basket: { minG: 16.5, maxG: 19, dualWalled: false, other: false },
      since: { newBag: false, hours: 14, setting: 30, timeS: 27.4, sdS: 0.9 },
      standsAt: 30,
      shots: [
        {
          setting: 30,
          doseG: 18,
          yieldG: 36,
          timeS: 27,
          firstDropS: 2.2,
          by: 'Ines',
          group: '1',
          measured: { dose: 'line', yield: 'glass' },
        },
      ],
    },
  },
  diagnose: {
    tool: diagnoseTool as unknown as LineTool<never, unknown>,
    good: {
      recipes: { g1: recipe, g2: recipe },
      groups: ['A', 'B'],
      shots: [
        { grinder: 'g1', group: 'A', doseG: 18, yieldG: 36.2, timeS: 27.9 },
        { grinder: 'g2', group: 'B', doseG: 18, yieldG: 36.2, timeS: 31.5, firstDropS: 6 },
      ],
    },
  },
};

/** A number, a string, a null... in the place of any part of a good line. */
function withPartReplaced(value: unknown, at: number, junk: unknown): unknown {
  let seen = 0;
  const walk = (part: unknown): unknown => {
    seen += 1;
    if (seen - 1 === at) return junk;
    if (Array.isArray(part)) return part.map(walk);
    if (part !== null && typeof part === 'object') {
      return Object.fromEntries(Object.entries(part).map(([key, inner]) => [key, walk(inner)]));
    }
    return part;
  };
  return walk(value);
}

const junk = fc.oneof(
  fc.jsonValue({ maxDepth: 2 }),
  fc.double({ noNaN: true }),
  fc.constantFrom(0, -1, 1e300, 1e-300, -1e300, 5e-324, '', [], {}, null, { __proto__: 1 }),
);

describe.each(Object.entries(tools))('%s, line by line', (_name, { tool, good }) => {
  const text = JSON.stringify(good);

  it('answers a good line in exactly the form of its schema', () => {
    const answer: unknown = JSON.parse(answerLine(tool, text));
    expect(tool.answerSchema.parse(answer)).toEqual(answer);
  });

  it('has JSON Schemas of its case and of its answer', () => {
    const { case: input, answer } = schemasOf(tool) as Record<string, { type: string; required: string[] }>;
    expect(input?.type).toBe('object');
    expect(answer?.required.length).toBeGreaterThan(3);
  });

  it('answers 10,000 broken lines, each with an answer or with what is wrong, without an exit', () => {
    const broken = fc.oneof(
      fc.string({ maxLength: 60 }),
      fc.json({ maxDepth: 3 }),
      fc
        .tuple(fc.nat(text.length), fc.string({ maxLength: 4 }))
        .map(([at, letters]) => text.slice(0, at) + letters + text.slice(at + 1)),
      fc.tuple(fc.nat(60), junk).map(([at, value]) => JSON.stringify(withPartReplaced(good, at, value))),
    );
    fc.assert(
      fc.property(broken, (line) => {
        const given: unknown = JSON.parse(answerLine(tool, line));
        const isAnswer = tool.answerSchema.safeParse(given).success;
        expect(isAnswer || lineErrorSchema.safeParse(given).success).toBe(true);
      }),
      { seed: 20260304, numRuns: 10_000 },
    );
  }, 60_000);
});

describe('the diagnosis line', () => {
  it('names the shot whose grinder or group nobody listed', () => {
    const { good } = tools.diagnose ?? {};
    const shots = [{ grinder: 'g9', group: 'A', doseG: 18, yieldG: 36, timeS: 27 }];
    const answer = answerLine(diagnoseTool, JSON.stringify({ ...(good as object), shots }));
    expect(JSON.parse(answer)).toEqual({
      error: { path: 'shots.0.grinder', message: 'this grinder has no recipe' },
    });
  });
});

describe('what the advice line is told beside the shots', () => {
  const asked = (change: object, shot: object) => {
    const line = {
      recipe,
      grinder: { stepMarks: 1, finer: 'down', secondsPerMark: 2.5, retentionG: null },
      since: { newBag: false, hours: 14 },
      ...change,
      shots: [{ setting: 30, doseG: 18, yieldG: 36, timeS: 27, purgedG: 20, ...shot }],
    };
    return JSON.parse(answerLine(adviceTool as unknown as LineTool<never, unknown>, JSON.stringify(line))) as {
      action: string;
      setting: number;
      reasons: string[];
    };
  };

  it('another basket comes before the collar, and a dual-walled one is never turned for far', () => {
    expect(asked({ basket: { other: true } }, { timeS: 13 })).toMatchObject({ action: 'repeat', setting: 30 });
    const dual = asked({ basket: { dualWalled: true } }, { timeS: 13 });
    expect(dual.action).toBe('move');
    expect(30 - dual.setting).toBeLessThanOrEqual(2);
  });

  it('says when the first drop or the dose is out, and changes nothing else for it', () => {
    const plain = asked({}, {});
    const told = asked(
      { recipe: { ...recipe, firstDropS: { min: 4, max: 8 } }, basket: { minG: 16.5, maxG: 17.5 } },
      { firstDropS: 2.2 },
    );
    expect(told.reasons.join(' ')).toMatch(/first drop fell at 2\.2 s, 1\.8 s too early/);
    expect(told.reasons.join(' ')).toMatch(/18\.0 g lies outside what this basket is made for/);
    expect(told.action).toBe(plain.action);
    // A basket that is filled to its mark takes what a hand weighs about it.
    const full = (doseG: number): string => asked({ basket: { minG: 16, maxG: 18 } }, { doseG }).reasons.join(' ');
    expect(full(18.2)).not.toMatch(/basket/);
    expect(full(19.2)).toMatch(/19\.2 g lies outside what this basket is made for/);
  });
});
