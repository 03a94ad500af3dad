export { checkLimit, limits, parseNumber, type Limits, type LimitVerdict, type Quantity } from './limits.ts';
