/**
 * What threads do: plain values in, plain values out. What reckons is loaded before a thread takes its first job, since
 * some of it has little time; what draws, packs and unpacks comes with the first that asks for it. Bundled by
 * `scripts/workers.mjs`.
 */
import { effectsChunk, inBar, substitutes } from './change-job';
import { cures, nextBar } from './cure-job';
import { pace } from './heat-job';
import { assessOnThread, overviews, sweepChunk } from './reckon-jobs';
import { clockMs } from '../clock';

/** Answers after a moment, so that as many at once reach as many threads. */
function ready(ms: number): Promise<true> {
  return new Promise((resolve) => setTimeout(() => resolve(true), ms));
}

const jobs = {
  ready: () => ready,
  assessOnThread: () => assessOnThread,
  overviews: () => overviews,
  sweepChunk: () => sweepChunk,
  effectsChunk: () => effectsChunk,
  substitutes: () => substitutes,
  inBar: () => inBar,
  cures: () => cures,
  nextBar: () => nextBar,
  pace: () => pace,
  rangeNames: async () => (await import('./scent-job')).rangeNames,
  foretell: async () => (await import('./foretell-job')).foretell,
  findRescue: async () => (await import('./rescue-job')).findRescue,
  packArchive: async () => (await import('../archive/pack-job')).packArchive,
  makeLists: async () => (await import('../archive/lists')).makeLists,
  compareArchive: async () => (await import('../archive/unpack-job')).compareArchive,
  unpackArchive: async () => (await import('../archive/unpack-job')).unpackArchive,
  backUp: async () => (await import('../archive/backup-job')).backUp,
  faultOf: async () => (await import('../archive/backup-job')).faultOf,
  getReady: async () => (await import('../archive/restore')).getReady,
  makeLabel: async () => (await import('../labels/label-job')).makeLabel,
  sheetsOfIssued: async () => (await import('../labels/issued-sheets')).sheetsOfIssued,
  readLogo: async () => (await import('../labels/logo')).readLogo,
  productSheetPdf: async () => (await import('../labels/product-sheet')).productSheetPdf,
  recordPdf: async () => (await import('../labels/record-pdf')).recordPdf,
  productFilePdf: async () => (await import('../labels/product-file-pdf')).productFilePdf,
  productFileZip: async () => (await import('../labels/product-file-pdf')).productFileZip,
  withdrawalPdf: async () => (await import('../labels/withdrawal-pdf')).withdrawalPdf,
};

export type JobName = keyof typeof jobs;
type Work<K extends JobName> = Awaited<ReturnType<(typeof jobs)[K]>>;
export type JobInput<K extends JobName> = Parameters<Work<K>>[0];
export type JobOutput<K extends JobName> = Awaited<ReturnType<Work<K>>>;

export interface JobAsked<K extends JobName> {
  name: K;
  input: JobInput<K>;
  /** One number that both sides see: `clockMs` when the job began, 0 before. */
  begun: Float64Array;
}

/** Does a job once its code is there; its time counts from then. */
export default async function work<K extends JobName>({ name, input, begun }: JobAsked<K>) {
  const job = (await jobs[name]()) as (input: JobInput<K>) => JobOutput<K> | Promise<JobOutput<K>>;
  begun[0] = clockMs();
  return job(input);
}
