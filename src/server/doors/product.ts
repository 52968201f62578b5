/** The doors of a new bar, of a variation, and of a bar's details. */
import { PURPOSES, type PurposeId } from '../../core/formula/purposes';
import {
  LONGEST,
  MarketDays,
  Markets,
  Name,
  NotEmpty,
  Nested,
  NumberBetween,
  OneOf,
  Optional,
  OrNull,
  Text,
} from './fields';
import type { Formula } from '../../core/formula/types';
import { FormulaDoor } from './assessment-request';
import { Revision } from './revision';

export class NewProductDoor {
  @Name('the bar') name!: string;
  @Optional() @OneOf(PURPOSES) purpose?: string;
  @Optional() @Nested(() => FormulaDoor) formula?: FormulaDoor;
}

export interface NewProduct {
  name: string;
  /** What it is for: it begins with a formula that fits. */
  purpose?: PurposeId;
  /** Its formula, where it is made of a recipe. */
  formula?: Formula;
}

const MOST_LYE_G = 1e6;

/** The lye was found again by a second way. */
export class LyeCheckDoor {
  @NumberBetween(0, MOST_LYE_G) alkaliG!: number;
  @NumberBetween(0, MOST_LYE_G) secondG!: number;
  @OrNull() @Text(LONGEST.name) by!: string | null;
}

const MOST_NET_G = 5000;

export class ProductDetailsDoor {
  @Revision() revision!: number;
  @Name('the bar') name!: string;
  @Text(LONGEST.line) identity!: string;
  @Text(LONGEST.line) note!: string;
  @Optional() @Text(LONGEST.short) collection?: string;
  @Markets() @NotEmpty('Choose at least one market.') markets!: string[];
  @OrNull() @NumberBetween(1, MOST_NET_G) netMassG!: number | null;
  @Text(LONGEST.short) batchCode!: string;
  @MarketDays() firstPlacedOn!: object;
}
