import { adviceAnswerSchema, adviceLineSchema, answerOfAdvice, caseOfLine } from '@tempera/contract/adviceLine';
import { advise } from '@tempera/core/calibration';
import { runLineTool } from './lines.ts';

/** The advice line: shots of one grinder in, the one next thing to do out. */
export const adviceTool = {
  caseSchema: adviceLineSchema,
  answerSchema: adviceAnswerSchema,
  answer: (line: Parameters<typeof caseOfLine>[0]) => answerOfAdvice(advise(caseOfLine(line))),
};

/** `npm run -s advise` */
export const main = (args: string[]): Promise<void> => runLineTool(adviceTool, args);
