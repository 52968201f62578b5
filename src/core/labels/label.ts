/** Lays a label out: front panel, the flow of the rest, measured heights, and what does not fit and by how much. */
import { withOpenJar } from './open-jar';
import { codeHeight, codeWidth, placeCode, type Barcode } from './code';
import type { LabelContent } from './content';
import { asksForFace, formatFault, planFormat, SMALLEST_MM, type LabelFormat, type Plan } from './formats';
import { checkLook, checkText, FACE_UNMEASURED, reportLack } from './findings';
import { leastDigits, leastLetters, type LeastHeight } from './heights';
import {
  emptyLayout,
  flowText,
  isLeft,
  lineRoom,
  measure,
  putLine,
  START,
  startFlow,
  takeLine,
  type Face,
  type Flow,
  type Layout,
  type Measured,
  type Metrics,
  type Region,
  type TextStyle,
} from './layout';
import { LABEL_MANNERS } from './manners';

export interface LabelLook {
  /** Colours as #rrggbb. */
  paper: string;
  ink: string;
  /** Face of the name. */
  nameFace: Face;
  /** Key and shape of the maker's picture; null for none. */
  logo: { key: string; widthOverHeight: number } | null;
  barcode: Barcode | null;
}

const NAME_SIZES_MM = [14, 12, 10, 9, 8, 7, 6, 5, 4.2, 3.6];
const LEADING = 1.25;
const NAME_LEADING = 1.1;
const PARAGRAPH = 0.55;
/** Text is set larger than its least height where there is room, up to so many times. */
const ROOMIER = [1.6, 1.45, 1.3, 1.2, 1.1, 1];
/** The US asks for the net weight within the lower part of the front panel. */
const LOWER_PART = 0.3;
const LOGO_SHARE = 0.34;
const HAIRLINE_MM = 0.15;
const FOOT_STEP_MM = 0.25;

function sizeFor(least: LeastHeight, metrics: Metrics, face: Face, what: 'x' | 'digit'): number {
  return least.mm / (what === 'x' ? metrics.xHeight(face) : metrics.digitHeight(face));
}

interface Setting {
  content: LabelContent;
  plan: Plan;
  look: LabelLook;
  metrics: Metrics;
  letters: LeastHeight;
  digits: LeastHeight;
  /** Where the net content stands at the foot. */
  netRegion: Region;
  /** Whether the height of the digits is known. */
  isFaceKnown: boolean;
}

function linesHeight(count: number, style: TextStyle): number {
  return count === 0 ? 0 : style.sizeMm + (count - 1) * style.sizeMm * style.leading;
}

/** Places lines from a top down within a region; answers where they end. */
function placeBlock(
  layout: Layout,
  measured: Measured,
  style: TextStyle,
  region: Region,
  topMm: number,
): number {
  let top = topMm;
  for (let at = START; isLeft(measured, at);) {
    const room = lineRoom(region, top, style.sizeMm);
    const line = takeLine(measured, at, style.sizeMm, Math.max(room.widthMm, 1));
    const isOver = top + style.sizeMm > region.yMm + region.heightMm + 1e-6;
    const xMm = region.disc ? room.xMm + (room.widthMm - line.widthMm) / 2 : room.xMm;
    putLine(layout, line.text, style, xMm, top, isOver);
    at = line.next;
    top += style.sizeMm * style.leading;
  }
  return top;
}

/** How high a block would be; discs are measured at their widest, boxes exactly. */
function blockHeight(measured: Measured, style: TextStyle, region: Region, topMm: number): number {
  const scratch = emptyLayout(1, 1, { paper: '#ffffff', ink: '#000000' });
  placeBlock(scratch, measured, style, { ...region, heightMm: Infinity }, topMm);
  return linesHeight(scratch.texts.length, style);
}

function placeLogo(layout: Layout, { look, plan }: Setting): number {
  const { front } = plan;
  if (!look.logo) return front.yMm;
  const heightMm = Math.min(front.heightMm * LOGO_SHARE, front.widthMm / look.logo.widthOverHeight);
  const widthMm = heightMm * look.logo.widthOverHeight;
  const xMm = front.disc ? front.disc.xMm - widthMm / 2 : front.xMm;
  layout.images.push({ key: look.logo.key, xMm, yMm: front.yMm, widthMm, heightMm });
  return front.yMm + heightMm + 1;
}

function netStyle({ metrics, digits }: Pick<Setting, 'metrics' | 'digits'>): TextStyle {
  return {
    element: 'net',
    face: 'strong',
    sizeMm: sizeFor(digits, metrics, 'strong', 'digit'),
    leading: LEADING,
  };
}

/** How far above a region's foot one line of the net content can stand; on a disc, where it is wide enough. */
function footTop(text: string, style: TextStyle, region: Region, metrics: Metrics): number {
  const widthMm = metrics.width(text, style.face, style.sizeMm);
  const lowest = region.yMm + region.heightMm - style.sizeMm;
  if (!region.disc) return lowest;
  let top = lowest;
  while (top > region.yMm && lineRoom(region, top, style.sizeMm).widthMm < widthMm) top -= FOOT_STEP_MM;
  return top;
}

/**
 * Where the net content goes: the foot of the front; in the US the foot of the whole panel, which is kept free
 * of the rest where the front is only its upper part.
 */
function netPlace(
  content: LabelContent,
  plan: Plan,
  style: TextStyle,
  metrics: Metrics,
): { region: Region; plan: Plan } {
  if (!LABEL_MANNERS[content.market].hasOunces || !plan.isStacked || !content.front.net)
    return { region: plan.front, plan };
  const last = plan.info[plan.info.length - 1]!;
  const top = footTop(content.front.net, style, last, metrics);
  const shortened = { ...last, heightMm: top - last.yMm - style.sizeMm * 0.3 };
  return { region: last, plan: { ...plan, info: [...plan.info.slice(0, -1), shortened] } };
}

/** Places the net content; answers where the front's own room ends. */
function placeNet(layout: Layout, setting: Setting): number {
  const { content, plan, metrics, digits, netRegion } = setting;
  const frontFoot = plan.front.yMm + plan.front.heightMm;
  if (!content.front.net) return frontFoot;
  const style = netStyle(setting);
  const oneLine = footTop(content.front.net, style, netRegion, metrics);
  const widthMm = metrics.width(content.front.net, style.face, style.sizeMm);
  const fitsOneLine = lineRoom(netRegion, oneLine, style.sizeMm).widthMm >= widthMm;
  const foot = netRegion.yMm + netRegion.heightMm;
  const measured = measure(content.front.net, style.face, metrics);
  const several = foot - blockHeight(measured, style, netRegion, netRegion.yMm);
  const top = fitsOneLine ? oneLine : several;
  placeBlock(layout, measured, style, netRegion, top);
  // Held against nothing as long as the face that it hangs on is not measured.
  if (setting.isFaceKnown)
    layout.heights.push({
      element: 'net',
      what: 'digits',
      heightMm: style.sizeMm * metrics.digitHeight('strong'),
      leastMm: digits.mm,
      source: digits.source,
    });
  if (content.market === 'US' && top < layout.heightMm * (1 - LOWER_PART)) {
    layout.findings.push({
      element: 'net',
      code: 'net-position',
      message: 'The net weight takes more than the lower 30 % of the front panel. Make the front larger.',
    });
  }
  return netRegion === plan.front ? top - style.sizeMm * 0.4 : frontFoot;
}

/** Name and statement between the logo and the net content, the name as large as fits. */
function placeFront(layout: Layout, setting: Setting): void {
  const { content, plan, metrics, look, letters } = setting;
  const region = plan.front;
  const top = placeLogo(layout, setting);
  const bottom = placeNet(layout, setting);
  const identitySize = Math.max(sizeFor(letters, metrics, 'text', 'x') * 1.15, 2.6);
  const identity: TextStyle = { element: 'identity', face: 'text', sizeMm: identitySize, leading: LEADING };
  const nameStyle = (sizeMm: number): TextStyle => ({
    element: 'name',
    face: look.nameFace,
    sizeMm,
    leading: NAME_LEADING,
  });
  const name = measure(content.front.name, look.nameFace, metrics);
  const what = measure(content.front.identity, identity.face, metrics);
  const heightAt = (style: TextStyle) => {
    const nameMm = blockHeight(name, style, region, top);
    return nameMm + 1.2 + blockHeight(what, identity, region, top + nameMm);
  };
  const breaksNoWord = ({ sizeMm }: TextStyle) =>
    name.widths.every((width) => width * sizeMm <= lineRoom(region, top, sizeMm).widthMm);
  const styles = NAME_SIZES_MM.map(nameStyle);
  const style =
    styles.find((one) => breaksNoWord(one) && heightAt(one) <= bottom - top) ?? styles[styles.length - 1]!;
  const nameEnds = placeBlock(layout, name, style, region, top);
  const start = nameEnds - style.sizeMm * (style.leading - 1) + 1.2;
  placeBlock(layout, what, identity, region, start);
  const lacks = heightAt(style) - (bottom - top);
  if (lacks > 1e-6) reportLack(layout, content.market, 'name', lacks);
}

/** The regions of the flow with the foot of the last that is wide enough kept free for a barcode. */
function flowRegions({ plan, look }: Setting): { regions: Region[]; foot: Region | null } {
  if (!look.barcode || plan.outline === 'disc') return { regions: plan.info, foot: null };
  const [widthMm, heightMm] = [codeWidth(look.barcode), codeHeight(look.barcode)];
  const at = plan.info.findLastIndex((region) => region.widthMm >= widthMm && region.heightMm >= heightMm);
  const chosen = plan.info[at];
  if (!chosen) return { regions: plan.info, foot: null };
  const foot = { ...chosen, yMm: chosen.yMm + chosen.heightMm - heightMm, heightMm };
  const shortened = { ...chosen, heightMm: chosen.heightMm - heightMm - 1 };
  return { regions: plan.info.map((region, index) => (index === at ? shortened : region)), foot };
}

/** Moves on to the next region where a paragraph fits whole there and not here; only the list runs on across. */
function keepWhole(flow: Flow, measured: Measured, style: TextStyle): void {
  const here = flow.regions[flow.region]!;
  const next = flow.regions[flow.region + 1];
  if (!next || here.disc) return;
  const fits = (region: Region, topMm: number) =>
    topMm + blockHeight(measured, style, region, topMm) <= region.yMm + region.heightMm + 1e-9;
  if (fits(here, flow.topMm) || !fits(next, next.yMm)) return;
  flow.region++;
  flow.topMm = next.yMm;
}

/** Flows everything but the front at a size; answers the height each element lacks. */
function flowInfo(
  layout: Layout,
  setting: Setting,
  texts: readonly { id: string; measured: Measured }[],
  sizeMm: number,
): Map<string, number> {
  const flow = startFlow(flowRegions(setting).regions);
  const lacks = new Map<string, number>();
  for (const { id, measured } of texts) {
    const before = flow.lacksMm;
    const style: TextStyle = { element: id, face: 'text', sizeMm, leading: LEADING };
    if (id !== 'ingredients') keepWhole(flow, measured, style);
    flowText(layout, measured, style, flow);
    if (flow.lacksMm > before) lacks.set(id, flow.lacksMm - before);
    flow.topMm += sizeMm * PARAGRAPH;
  }
  return lacks;
}

function placeInfo(layout: Layout, setting: Setting): void {
  const { metrics, letters, content } = setting;
  const texts = content.info.map(({ id, text }) => {
    const drawn = id === 'durability' ? withOpenJar(text) : text;
    return { id, measured: measure(drawn, 'text', metrics) };
  });
  const leastSize = sizeFor(letters, metrics, 'text', 'x');
  const fits = (size: number) => flowInfo({ ...layout, texts: [] }, setting, texts, size).size === 0;
  const scale = ROOMIER.find((times) => fits(leastSize * times)) ?? 1;
  const lacks = flowInfo(layout, setting, texts, leastSize * scale);
  for (const [element, lacksMm] of lacks) reportLack(layout, content.market, element, lacksMm);
  layout.heights.push({
    element: 'ingredients and the rest',
    what: 'x-height',
    heightMm: leastSize * scale * metrics.xHeight('text'),
    leastMm: letters.mm,
    source: letters.source,
  });
  if (setting.look.barcode) placeCode(layout, setting.look.barcode, setting, flowRegions(setting).foot);
}

function placeRules(layout: Layout, { plan }: Setting): void {
  layout.rules.push(...plan.guides);
  if (plan.outline === 'disc') return;
  const { front, info } = plan;
  const first = info[0]!;
  const beside = first.xMm >= front.xMm + front.widthMm;
  if (beside && plan.guides.length === 0) {
    const xMm = (front.xMm + front.widthMm + first.xMm) / 2;
    layout.rules.push({
      x1Mm: xMm,
      y1Mm: front.yMm,
      x2Mm: xMm,
      y2Mm: front.yMm + front.heightMm,
      weightMm: HAIRLINE_MM,
    });
  }
}

/**
 * Lays a label out. Findings tell what is missing, cannot be drawn, or does not fit and by how much.
 *
 * @example
 * layoutLabel(content, format, look, 98, metrics).findings; // [] where everything fits
 */
export function layoutLabel(
  content: LabelContent,
  format: LabelFormat,
  look: LabelLook,
  netMassG: number,
  metrics: Metrics,
): Layout {
  const fault = formatFault(format);
  if (fault) {
    const empty = emptyLayout(SMALLEST_MM, SMALLEST_MM, look);
    empty.findings.push({ element: 'format', code: 'format', message: fault });
    return empty;
  }
  const whole = planFormat(format);
  const letters = leastLetters(content.market, whole, format.shape);
  const digits = leastDigits(content.market, netMassG, whole);
  const { region: netRegion, plan } = netPlace(content, whole, netStyle({ metrics, digits }), metrics);
  const isFaceKnown = !asksForFace(content.market, format);
  const setting: Setting = { content, plan, look, metrics, letters, digits, netRegion, isFaceKnown };
  const layout = emptyLayout(plan.widthMm, plan.heightMm, { ...look, outline: plan.outline });
  layout.findings.push(...content.findings);
  if (!isFaceKnown) layout.findings.push(FACE_UNMEASURED);
  checkText(layout, content, metrics);
  checkLook(layout, look);
  placeRules(layout, setting);
  placeFront(layout, setting);
  placeInfo(layout, setting);
  return layout;
}
