import { createInterface } from 'node:readline';
import { adviceLineSchema, answerOfAdvice, caseOfLine } from '@tempera/contract/adviceLine';
import { advise } from '@tempera/core/calibration';

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

/** `npm run -s advise`: JSON Lines on stdin, one answer line each, at once, until the input ends. */
export async function main(): Promise<void> {
  process.stdout.on('error', () => process.exit(0));
  for await (const line of createInterface({ input: process.stdin, crlfDelay: Infinity })) {
    if (line.trim() !== '') process.stdout.write(`${answerLine(line)}\n`);
  }
}
