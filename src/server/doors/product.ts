/** The doors of a new bar, of a variation, and of a bar's details. */
import { IsArray, ArrayMinSize } from 'class-validator';
import { Markets, MarketDays, Name, NumberBetween, Optional, Text } from './fields';

export class NewProductDoor {
  @Name('the bar') name!: string;
}

export interface NewProduct {
  name: string;
}

const MOST_NET_G = 5000;

export class ProductDetailsDoor {
  @Name('the bar') name!: string;
  @Text() identity!: string;
  @Text() note!: string;
  @IsArray({ message: 'Give a list of markets.', context: { code: 'not-a-list' } })
  @ArrayMinSize(1, { message: 'Choose at least one market.', context: { code: 'empty' } })
  @Markets()
  markets!: string[];
  @Optional() @NumberBetween(1, MOST_NET_G) netMassG?: number | null;
  @Text() batchCode!: string;
  @MarketDays() firstPlacedOn!: object;
}
