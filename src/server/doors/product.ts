/** The doors of a new bar, of a variation, and of a bar's details. */
import {
  LONGEST,
  MarketDays,
  Markets,
  Name,
  NotEmpty,
  NumberBetween,
  Optional,
  OrNull,
  Text,
} from './fields';
import { Revision } from './revision';

export class NewProductDoor {
  @Name('the bar') name!: string;
}

export interface NewProduct {
  name: string;
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
