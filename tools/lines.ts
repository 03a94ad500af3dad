import { createInterface } from 'node:readline';
import { z } from 'zod';

/** A tool that answers JSON Lines: one case a line in, one answer a line out, at once, until the input ends. */
export interface LineTool<Case, Answer> {
  caseSchema: z.ZodType<Case>;
  answerSchema: z.ZodType<Answer>;
  answer: (input: Case) => Answer;
}

/** One line's answer, or what is wrong with the line and where. Never throws. */
export function answerLine<Case, Answer>(tool: LineTool<Case, Answer>, line: string): string {
  let input: unknown;
  try {
    input = JSON.parse(line);
  } catch {
    return refusal('', 'not JSON');
  }
  try {
    const parsed = tool.caseSchema.safeParse(input);
    if (!parsed.success) return refusalOf(parsed.error, 'not accepted');
    const answer = tool.answerSchema.safeParse(tool.answer(parsed.data));
    // Numbers that no bar could show lead to answers that are none.
    return answer.success
      ? JSON.stringify(answer.data)
      : refusal('', 'these numbers are beyond what can be worked out');
  } catch (error) {
    return refusal('', error instanceof Error ? error.message : 'no answer can be given');
  }
}

function refusalOf(error: z.ZodError, otherwise: string): string {
  const issue = error.issues[0];
  return refusal(issue?.path.join('.') ?? '', issue?.message ?? otherwise);
}

function refusal(path: string, message: string): string {
  return JSON.stringify({ error: { path, message } });
}

/** JSON Schemas of a tool's case and of its answer, made from the contract. */
export function schemasOf<Case, Answer>({ caseSchema, answerSchema }: LineTool<Case, Answer>): object {
  return { case: z.toJSONSchema(caseSchema, { io: 'input' }), answer: z.toJSONSchema(answerSchema) };
}

/** Runs a line tool on stdin and stdout; with `--schema` it prints the JSON Schemas of both instead. */
export async function runLineTool<Case, Answer>(tool: LineTool<Case, Answer>, args: readonly string[]): Promise<void> {
  if (args.includes('--schema')) {
    process.stdout.write(`${JSON.stringify(schemasOf(tool), null, 2)}\n`);
    return;
  }
  // Whoever reads may stop reading before we stop writing.
  process.stdout.on('error', () => process.exit(0));
  for await (const line of createInterface({ input: process.stdin, crlfDelay: Infinity })) {
    if (line.trim() !== '') process.stdout.write(`${answerLine(tool, line)}\n`);
  }
}
