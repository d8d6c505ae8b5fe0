/** All that makes figures and their files, fetched together. */
export { fitted } from '@/core/figure/figure';
export { figureSvg } from '@/core/figure/figure-svg';
export { recordedMarks } from './element-marks';
export { figurePng } from './paint-figure';
