import {
  answerOfDiagnosis,
  checkOfLine,
  diagnoseAnswerSchema,
  diagnoseLineSchema,
} from '@tempera/contract/diagnoseLine';
import { grinderOrGroup } from '@tempera/core/calibration';
import { runLineTool } from './lines.ts';

/** The diagnosis line: shots of several grinders through several groups in, which of them is off out. */
export const diagnoseTool = {
  caseSchema: diagnoseLineSchema,
  answerSchema: diagnoseAnswerSchema,
  answer: (line: Parameters<typeof checkOfLine>[0]) => answerOfDiagnosis(grinderOrGroup(checkOfLine(line))),
};

/** `npm run -s diagnose` */
export const main = (args: string[]): Promise<void> => runLineTool(diagnoseTool, args);
