/** Finds remedies off the main thread, in the browser. The bar's setting is sent when it changes, formulas each time. */
import { assess } from '../core/assess';
import { findRemedies, type Remedy } from '../core/loads/remedies';
import type { AssessmentRequest, Material, Stored } from '../core/formula/types';

/** What remedies are tried in. */
export interface RemedySetting {
  rules: Pick<Stored, 'limits' | 'declarables' | 'demands'>;
  materials: Material[];
  alternatives: Material[];
}

export type RemedyTask =
  { setting: RemedySetting } | { id: number; request: Omit<AssessmentRequest, 'materials'> };

export interface RemedyReply {
  id: number;
  remedies: Remedy[];
}

let setting: RemedySetting | null = null;
let stored: Stored | null = null;

addEventListener('message', ({ data }: MessageEvent<RemedyTask>) => {
  if ('setting' in data) {
    setting = data.setting;
    stored = { ...setting.rules, material: () => undefined };
    return;
  }
  if (!setting || !stored) return;
  const request = { ...data.request, materials: setting.materials };
  const result = assess(request, stored);
  const remedies = result.ok ? findRemedies(request, result.assessment, stored, setting.alternatives) : [];
  postMessage({ id: data.id, remedies } satisfies RemedyReply);
});
