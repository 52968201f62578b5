/**
 * What threads do. Every export is a job: plain values in, plain values out. All of it is loaded before a thread
 * takes its first job. Bundled by `scripts/workers.mjs`.
 */
export { assessOnThread, overviews, sweepChunk } from '../../workers/reckon-jobs';
export { effectsChunk, substitutes } from '../../workers/change-job';
export { packArchive } from '../archive/pack-job';
export { compareArchive, unpackArchive } from '../archive/unpack-job';
export { backUp, faultOf } from '../archive/backup-job';
export { getReady } from '../archive/restore';
export { cures } from '../../workers/cure-job';
export { pace } from '../../workers/heat-job';
export { makeLabel } from '../labels/label-job';
export { readLogo } from '../labels/logo';
export { productSheetPdf } from '../labels/product-sheet';
export { recordPdf } from '../labels/record-pdf';
export { withdrawalPdf } from '../labels/withdrawal-pdf';

/** Answers after a moment, so that as many at once reach as many threads. */
export function ready(ms: number): Promise<true> {
  return new Promise((resolve) => setTimeout(() => resolve(true), ms));
}
