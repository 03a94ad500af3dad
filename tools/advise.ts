import {
  adviceAnswerSchema,
  adviceLineSchema,
  answerOfAdvice,
  answerOfService,
  caseOfLine,
  serviceOfLine,
  type AdviceLine,
} from '@tempera/contract/adviceLine';
import { advise } from '@tempera/core/calibration';
import { serve } from '@tempera/core/day';
import { runLineTool } from './lines.ts';

/** The advice line: shots of one grinder in, the one next thing to do out. */
export const adviceTool = {
  caseSchema: adviceLineSchema,
  answerSchema: adviceAnswerSchema,
  answer: (line: AdviceLine) => {
    const service = serviceOfLine(line);
    const input = caseOfLine(line);
    return service ? answerOfService(serve(input, service)) : answerOfAdvice(advise(input));
  },
};

/** `npm run -s advise` */
export const main = (args: string[]): Promise<void> => runLineTool(adviceTool, args);
