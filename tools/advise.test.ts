import { spawnSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { adviceTool } from './advise.ts';
import { answerLine, schemasOf } from './lines.ts';
import { root } from './setup/paths.ts';

const line = JSON.stringify({
  recipe: { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 } },
  grinder: { stepMarks: 1, finer: 'down', secondsPerMark: 2.5, retentionG: null },
  since: null,
  shots: [{ setting: 30, doseG: 18, yieldG: 36, timeS: 22 }],
});

describe('npm run -s advise', () => {
  it('has a JSON Schema that asks for what the contract asks for', () => {
    const { case: input, answer } = schemasOf(adviceTool) as Record<
      string,
      { required: string[]; additionalProperties: boolean }
    >;
    expect(input?.required.sort()).toEqual(['grinder', 'recipe', 'shots', 'since']);
    expect(input?.additionalProperties).toBe(false);
    expect(answer?.required).toContain('predicted');
    expect(answer?.required).not.toContain('doseG');
  });

  it('answers for the rest of a served day, in the words of the day', () => {
    const at = (minute: number): string => new Date(Date.parse('2031-05-04T09:00:00Z') + minute * 60_000).toISOString();
    const shots = [27, 27.3, 27.1].map((timeS, i) => ({ at: at(60 * i), setting: 30, doseG: 18, yieldG: 36, timeS }));
    const served = {
      ...(JSON.parse(line) as object),
      shots,
      now: at(120),
      service: { endsAt: at(480), cupsPerHour: 40 },
    };
    const answer = JSON.parse(answerLine(adviceTool, JSON.stringify(served))) as Record<string, unknown>;
    expect(answer).toMatchObject({ action: 'lock', setting: 30, purgeG: 0 });
    // By its doubt, within what a house waits at most.
    expect(answer.nextCheckMin).toBeGreaterThan(30);
    expect(answer.nextCheckMin).toBeLessThanOrEqual(75);
    expect(answer.reasons).toEqual([
      expect.stringMatching(/^Leave it: .* of the cups would run outside as it stands\.$/),
      "At the recipe's dose and yield it ran 27.1 s: inside 25-30 s.",
    ]);
  });

  it('answers one line a line, goes on after a bad one, and says nothing else', () => {
    const done = spawnSync('npm', ['run', '-s', 'advise'], {
      cwd: root,
      input: `${line}\nnonsense\n\n${line}`,
      encoding: 'utf8',
    });
    expect(done.status).toBe(0);
    const answers = done.stdout
      .trimEnd()
      .split('\n')
      .map((text) => JSON.parse(text) as Record<string, unknown>);
    expect(answers.map((answer) => Object.keys(answer)[0])).toEqual(['action', 'error', 'action']);
    expect(answers[0]).toEqual(answers[2]);
  });
});
