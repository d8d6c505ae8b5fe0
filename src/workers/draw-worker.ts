import { expose } from 'comlink';
import { circuitOfSpec, costOf } from '@/core/synthesis/circuit-of-spec';

const work = { circuitOfPlan: circuitOfSpec, costOf };

export type DrawWork = typeof work;

expose(work);
