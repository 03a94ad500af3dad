import { createInterface } from 'node:readline';
import { adviceAnswerSchema, adviceLineSchema, answerOfAdvice, caseOfLine } from '@tempera/contract/adviceLine';
import { advise } from '@tempera/core/calibration';
import { z } from 'zod';

/** One line's answer: the advice, or what is wrong with the line and where. Never throws. */
export function answerLine(line: string): string {
  let input: unknown;
  try {
    input = JSON.parse(line);
  } catch {
    return refusal('', 'not JSON');
  }
  const parsed = adviceLineSchema.safeParse(input);
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    return refusal(issue?.path.join('.') ?? '', issue?.message ?? 'not accepted');
  }
  try {
    return JSON.stringify(answerOfAdvice(advise(caseOfLine(parsed.data))));
  } catch (error) {
    return refusal('', error instanceof Error ? error.message : 'no advice can be given');
  }
}

function refusal(path: string, message: string): string {
  return JSON.stringify({ error: { path, message } });
}

/** JSON Schemas of a case and of its answer, made from the contract. */
export function adviceSchemas(): object {
  return { case: z.toJSONSchema(adviceLineSchema, { io: 'input' }), answer: z.toJSONSchema(adviceAnswerSchema) };
}

/**
 * `npm run -s advise`: JSON Lines on stdin, one answer line each, at once, until the input ends. With `--schema` it prints
 * the JSON Schemas of both instead.
 */
export async function main(args: string[]): Promise<void> {
  if (args.includes('--schema')) {
    process.stdout.write(`${JSON.stringify(adviceSchemas(), null, 2)}\n`);
    return;
  }
  process.stdout.on('error', () => process.exit(0));
  for await (const line of createInterface({ input: process.stdin, crlfDelay: Infinity })) {
    if (line.trim() !== '') process.stdout.write(`${answerLine(line)}\n`);
  }
}
