export { dayNumbers } from './dayNumbers.ts';
export { serve, type Service, type ServiceAdvice } from './serve.ts';
