/**
 * What threads do. Every export is a job: plain values in, plain values out. What reckons is loaded before a thread takes
 * its first job, since some of it has little time; what draws, packs and unpacks comes with the first that asks for it.
 * Bundled by `scripts/workers.mjs`.
 */
export { assessOnThread, overviews, sweepChunk } from '../../workers/reckon-jobs';
export { effectsChunk, substitutes } from '../../workers/change-job';
export { cures } from '../../workers/cure-job';
export { pace } from '../../workers/heat-job';

/** A job whose code is loaded when it is first asked for. */
function later<In, Out>(load: () => Promise<(input: In) => Out | Promise<Out>>): (input: In) => Promise<Out> {
  return async (input) => (await load())(input);
}

export const packArchive = later(async () => (await import('../archive/pack-job')).packArchive);
export const compareArchive = later(async () => (await import('../archive/unpack-job')).compareArchive);
export const unpackArchive = later(async () => (await import('../archive/unpack-job')).unpackArchive);
export const backUp = later(async () => (await import('../archive/backup-job')).backUp);
export const faultOf = later(async () => (await import('../archive/backup-job')).faultOf);
export const getReady = later(async () => (await import('../archive/restore')).getReady);
export const makeLabel = later(async () => (await import('../labels/label-job')).makeLabel);
export const readLogo = later(async () => (await import('../labels/logo')).readLogo);
export const productSheetPdf = later(async () => (await import('../labels/product-sheet')).productSheetPdf);
export const recordPdf = later(async () => (await import('../labels/record-pdf')).recordPdf);
export const withdrawalPdf = later(async () => (await import('../labels/withdrawal-pdf')).withdrawalPdf);

/** Answers after a moment, so that as many at once reach as many threads. */
export function ready(ms: number): Promise<true> {
  return new Promise((resolve) => setTimeout(() => resolve(true), ms));
}
