import { expose } from 'comlink';
import { circuitOfPlan, costOf } from '@/core/synthesis/from-plan';

const work = { circuitOfPlan, costOf };

export type DrawWork = typeof work;

expose(work);
