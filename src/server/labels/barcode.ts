/** Barcodes as widths of bars and gaps, for the layout to draw. */
import bwipjs from 'bwip-js/node';
import type { Barcode, LinearCode } from '../../core/labels/code';
import { squareOf } from './qr';
import type { Wrap } from '../../core/records/wrap';

/** What a code is made from; `pageAt` is the address of the batch's page, null where nothing says one. */
export type CodeOf = Pick<Wrap, 'barcode' | 'gtin' | 'batchCode'> & { pageAt: string | null };
export type BarcodeResult = { ok: true; bars: Barcode | null } | { ok: false; message: string };

/** Blank modules that each kind of code needs at both ends. */
const QUIET = { ean13: 11, code128: 10 };

function encode(kind: 'ean13' | 'code128', text: string): LinearCode {
  const [raw] = bwipjs.raw({ bcid: kind, text }) as unknown as { sbs: number[] }[];
  return { modules: raw!.sbs, text, quietModules: QUIET[kind] };
}

/** Whether the last digit of a thirteen-digit GTIN checks the others. */
export function isGtin(gtin: string): boolean {
  if (!/^\d{13}$/.test(gtin)) return false;
  const sum = [...gtin.slice(0, 12)].reduce(
    (total, digit, index) => total + Number(digit) * (index % 2 === 0 ? 1 : 3),
    0,
  );
  return (10 - (sum % 10)) % 10 === Number(gtin[12]);
}

/** The barcode a wrap asks for; a fault in words where it cannot be made. */
export function barcodeFor({ barcode, gtin, batchCode, pageAt }: CodeOf): BarcodeResult {
  if (barcode === 'none') return { ok: true, bars: null };
  if (barcode === 'gtin') {
    if (!isGtin(gtin)) {
      return { ok: false, message: 'The GTIN needs thirteen digits, the last of which checks the others.' };
    }
    return { ok: true, bars: encode('ean13', gtin) };
  }
  if (barcode === 'page') {
    if (pageAt === null) {
      const message =
        'Nothing says where the page of a batch stands. Say it in the House, or choose another code.';
      return { ok: false, message };
    }
    return { ok: true, bars: squareOf(pageAt) };
  }
  if (!/^[\x20-\x7e]{1,24}$/.test(batchCode)) {
    return { ok: false, message: 'A batch barcode takes up to 24 plain letters and digits.' };
  }
  return { ok: true, bars: encode('code128', batchCode) };
}
