import { answerOfReading, traceAnswerSchema, traceLineSchema } from '@tempera/contract/traceLine';
import { readTrace } from '@tempera/core/capture';
import { runLineTool } from './lines.ts';

/** The trace line: mass on the scale in, what the shot did out. */
export const traceTool = {
  caseSchema: traceLineSchema,
  answerSchema: traceAnswerSchema,
  answer: (line: Parameters<typeof readTrace>[0]) => answerOfReading(readTrace(line)),
};

/** `npm run -s read-trace` */
export const main = (args: string[]): Promise<void> => runLineTool(traceTool, args);
