import { expose } from 'comlink';
import { sheetPlan } from '@/core/packages/sheet-plan';

const work = { sheetPlan };

export type PlanWork = typeof work;

expose(work);
