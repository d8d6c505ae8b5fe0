import { aiger } from '../netlists/as-format';

export const AIG_FORMAT = aiger(true);
