/**
 * What threads do. Every export is a job: plain values in, plain values out. What draws is loaded when a thread
 * first draws, so that one which only reckons starts quickly. Bundled by `scripts/workers.mjs`.
 */
import type { LabelTask, MadeLabel } from '../labels/label-job';
import type { ReadLogo } from '../labels/logo';
import type { SheetInput } from '../labels/product-sheet';

export { assessOnThread, overviews, sweepChunk } from '../../workers/reckon-jobs';

/** Answers once the thread has started. */
export function ready(_: null): true {
  return true;
}

export async function makeLabel(task: LabelTask): Promise<MadeLabel> {
  return (await import('../labels/label-job')).makeLabel(task);
}

export async function readLogo(bytes: Uint8Array): Promise<ReadLogo> {
  return (await import('../labels/logo')).readLogo(bytes);
}

export async function productSheetPdf(input: SheetInput): Promise<Uint8Array> {
  return (await import('../labels/product-sheet')).productSheetPdf(input);
}
