import { spawnSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { adviceTool } from './advise.ts';
import { schemasOf } from './lines.ts';
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
