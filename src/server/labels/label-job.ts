/** One label from words to what leaves the house: laid out, drawn as SVG or as PDF. Runs on a thread. */
import { USUAL_FORMATS, type LabelFormat } from '../../core/labels/formats';
import type { LabelContent } from '../../core/labels/content';
import { fittingFormats, type Fitting } from '../../core/labels/fit';
import { layoutLabel, type LabelLook } from '../../core/labels/label';
import type { Layout } from '../../core/labels/layout';
import type { Wrap } from '../../core/records/wrap';
import type { Logo } from '../repositories/wraps';
import { barcodeFor, type CodeOf } from './barcode';
import { fontMetrics } from './fonts';
import { isSoundPng } from './png';
import { layoutPdf, sheetPdf } from './pdf';
import { layoutSvg, type Picture } from './svg';

/** How a label is wanted: laid out only, drawn for the screen with its folds, or as a file. */
export type LabelForm = 'layout' | 'preview' | 'svg' | 'pdf' | 'a4' | 'letter';

export interface LabelTask {
  content: LabelContent;
  /** The same label with the other school's list, to be tried where this one's does not fit. */
  other: { school: string; content: LabelContent } | null;
  format: LabelFormat | null;
  look: Wrap['look'];
  code: CodeOf;
  logo: Logo | null;
  netMassG: number;
  title: string;
  /** Words beside the label on paper, outside its trim; null for none. */
  note: string | null;
  form: LabelForm;
}

export interface MadeLabel {
  layout: Layout;
  /** On the screen, where something does not fit: shapes in which all of it does. */
  fits: Fitting[];
  /** The file, where one was wanted and nothing is in the way; null for a sheet that not one label fits on. */
  file: string | Uint8Array | null;
}

const LOGO_KEY = 'logo';

/** The maker's picture as the layout takes it; one that is damaged is left out. */
function pictureOf(logo: Logo | null): Picture | null {
  if (!logo || (logo.mime === 'image/png' && !isSoundPng(logo.bytes))) return null;
  return { mime: logo.mime, data: Buffer.from(logo.bytes) };
}

function lookOf({ look, code, logo }: LabelTask, picture: Picture | null): LabelLook {
  const barcode = barcodeFor(code);
  return {
    paper: look.paper,
    ink: look.ink,
    nameFace: look.nameFace,
    logo: picture && { key: LOGO_KEY, widthOverHeight: logo!.widthOverHeight },
    barcode: barcode.ok ? barcode.bars : null,
  };
}

function layOut(task: LabelTask, content: LabelContent, picture: Picture | null): Layout {
  const { look, code, logo, netMassG } = task;
  const barcode = barcodeFor(code);
  const asked = lookOf(task, picture);
  const layout = layoutLabel(content, task.format ?? USUAL_FORMATS.band, asked, netMassG, fontMetrics);
  if (!barcode.ok) layout.findings.push({ element: 'barcode', code: 'barcode', message: barcode.message });
  if (look.logo && logo && !picture) {
    const message = 'The picture on file is damaged and was left out. Put it in anew, or switch it off.';
    layout.findings.push({ element: 'logo', code: 'picture', message });
  }
  return layout;
}

const lacksRoom = ({ findings }: Layout) => findings.some(({ code }) => code === 'does-not-fit');

/** Where the list does not fit, whether the other school's would, as one more way out. */
function tryOther(task: LabelTask, layout: Layout, picture: Picture | null): void {
  const lacking = layout.findings.find(
    ({ element, code }) => element === 'ingredients' && code === 'does-not-fit',
  );
  if (!lacking || !task.other || lacksRoom(layOut(task, task.other.content, picture))) return;
  lacking.waysOut = [`the list as ${task.other.school}, which fits`, ...(lacking.waysOut ?? [])];
}

/** Where something does not fit on the screen, the smallest shapes in which all of it does. */
function trySizes(task: LabelTask, layout: Layout, picture: Picture | null): Fitting[] {
  const lacking = layout.findings.find(({ code }) => code === 'does-not-fit');
  if (!lacking || task.form !== 'preview' || !task.format) return [];
  const { content, format, netMassG } = task;
  return fittingFormats(content, format, lookOf(task, picture), netMassG, fontMetrics);
}

async function fileOf(
  { form, title, note }: LabelTask,
  layout: Layout,
  pictures: ReadonlyMap<string, Picture>,
) {
  if (form === 'layout') return null;
  if (form === 'preview') return layoutSvg(layout, title, pictures, true);
  if (layout.findings.length > 0) return null;
  if (form === 'svg') return layoutSvg(layout, title, pictures, false);
  if (form === 'pdf') return layoutPdf(layout, title, { pictures, note });
  return sheetPdf(layout, title, form === 'a4' ? 'A4' : 'Letter', { pictures, note });
}

/** Makes a label. Findings tell what is in the way of a print; a file for print is made only without any. */
export async function makeLabel(task: LabelTask): Promise<MadeLabel> {
  const picture = pictureOf(task.look.logo ? task.logo : null);
  const layout = layOut(task, task.content, picture);
  tryOther(task, layout, picture);
  const pictures = new Map<string, Picture>(picture ? [[LOGO_KEY, picture]] : []);
  const fits = trySizes(task, layout, picture);
  return { layout, fits, file: await fileOf(task, layout, pictures) };
}
