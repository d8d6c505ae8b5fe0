import { aiger } from '../netlists/as-format';

export const AAG_FORMAT = aiger(false);
