/** Sheets as makers have them, each written down before the reader was tried on it, and what they mean. */

export interface SheetByHand {
  what: string;
  sheet: string;
  /** Bars by name: lines, then lye in grams or superfat in percent, then the liquid where it is no line. */
  bars: Record<string, string>;
  /** Rows that are asked about or refused, with what is said. */
  faults: readonly (readonly [row: number, says: string])[];
}

export const SHEETS_BY_HAND: readonly SheetByHand[] = [
  {
    what: 'a card with its parts under headings, percents beside ounces',
    sheet: `Batch sheet - Lavender Fields,,,
Date:,3/4/2026,Made by:,Jo
,,,
OILS,%,oz,Notes
Olive Oil,40%,12.8,
Coconut Oil 76,30%,9.6,
Palm Oil (RSPO),25%,8,
Castor Oil,5%,1.6,
TOTAL OILS,100%,32,
,,,
LYE SOLUTION,,,
Distilled Water,,10.2,
Sodium Hydroxide,,4.52,5% SF
,,,
ADDITIVES,,,
Lavender EO,,1.6,at trace
Purple Brazilian Clay,,2 tsp,in oils
Sodium Lactate,,1 tbsp,in lye water
`,
    bars: {
      'Lavender Fields':
        'olive 12.8 oz, coconut 9.6 oz, palm 8 oz, castor 1.6 oz, water 10.2 oz, lavender-oil 1.6 oz, purple-clay 2 tsp, sodium-lactate-60 1 tbsp, lye 128.14',
    },
    faults: [],
  },
  {
    what: 'a row a bar abroad, superfat by its German name',
    sheet: `Rezept;Olivenöl;Kokosöl;Rapsöl;Sheabutter;Rizinusöl;Wasser;NaOH;ÜF
Gärtnerseife;400 g;250 g;200 g;100 g;50 g;330 g;136 g;8 %
Küchenseife;300 g;400 g;300 g;;;300 g;147,5 g;5 %
`,
    bars: {
      Gärtnerseife:
        'olive 400 g, coconut 250 g, rapeseed 200 g, shea 100 g, castor 50 g, water 330 g, lye 136',
      Küchenseife: 'olive 300 g, coconut 400 g, rapeseed 300 g, water 300 g, lye 147.5',
    },
    faults: [],
  },
  {
    what: 'a column a bar, percents that nobody says, water by its ratio to lye',
    sheet: `,Charcoal Facial,Oat Milk & Honey,Salt Spa
olive,50,45,
coconut,20,25,80
castor,8,5,10
shea,7,10,
avocado,15,,10
sunflower,,15,
superfat,6,7,20
water:lye,2:1,2:1,2:1
`,
    bars: {
      'Charcoal Facial':
        'olive 50 %fats, coconut 20 %fats, castor 8 %fats, shea 7 %fats, avocado 15 %fats, superfat 6, perAlkali 2',
      'Oat Milk & Honey':
        'olive 45 %fats, coconut 25 %fats, castor 5 %fats, shea 10 %fats, sunflower 15 %fats, superfat 7, perAlkali 2',
      'Salt Spa': 'coconut 80 %fats, castor 10 %fats, avocado 10 %fats, superfat 20, perAlkali 2',
    },
    faults: [],
  },
  {
    what: 'names above their rows, with what they are called',
    sheet: `SOAP: Tea Tree
Olive oil,1 lb
Coconut oil,8 oz
Lye,3.4 oz
Water,8 oz
Tea tree oil,1 oz

SOAP: Plain Castile
Olive oil,2 lbs
Lye,4.1 oz
Water,9 oz
`,
    bars: {
      'Tea Tree': 'olive 1 lb, coconut 8 oz, water 8 oz, tea-tree-oil 1 oz, lye 96.39',
      'Plain Castile': 'olive 2 lb, water 9 oz, lye 116.23',
    },
    faults: [],
  },
  {
    what: 'a row a bar in percents, lye by its strength, a column of words',
    sheet: `Name,Olive,Coconut,Palm,Castor,Lye conc.,SF,FO,FO name
Midnight,40,30,25,5,33,5,3,Lavender
Dawn,45,25,25,5,30,5,4,Rosemary
`,
    bars: {},
    faults: [
      [2, 'FO'],
      [3, 'FO'],
    ],
  },
  {
    what: 'a card with the name beside its word, parts of it without amounts',
    sheet: `Soap Name:,Garden Gate,,Size:,2 lb oils
Ingredient,Percent of oils,Weight (oz),When
Olive Oil,45,14.4,
Coconut Oil,28,8.96,
Sustainable Palm Oil,20,6.4,
Shea Butter,7,2.24,
Lye,,4.55,
Water,,9.6,
Lavender 40/42 EO,,1.2,trace
Peppermint EO,,0.5,trace
Alkanet Root Powder,,1 tsp,in oils
Total,,48.85,
`,
    bars: {
      'Garden Gate':
        'olive 14.4 oz, coconut 8.96 oz, palm 6.4 oz, shea 2.24 oz, water 9.6 oz, lavender-oil 1.2 oz, peppermint-oil 0.5 oz, alkanet-root 1 tsp, lye 128.99',
    },
    faults: [],
  },
  {
    what: 'units at the ends of heads',
    sheet: `Recipe,Olive g,Coconut g,Shea g,Castor g,NaOH g,Water g,Lavender EO g,Notes
Meadow,450,250,200,100,141,300,30,nice and hard
Cliff,500,300,150,50,146.5,310,25,
TOTAL,950,550,350,150,287.5,610,55,
`,
    bars: {
      Meadow: 'olive 450 g, coconut 250 g, shea 200 g, castor 100 g, water 300 g, lavender-oil 30 g, lye 141',
      Cliff: 'olive 500 g, coconut 300 g, shea 150 g, castor 50 g, water 310 g, lavender-oil 25 g, lye 146.5',
    },
    faults: [],
  },
  {
    what: 'percents of oils with superfat and strength among them',
    sheet: `Oil,Lavender bar,Kitchen bar,Shampoo bar
Olive oil,50%,40%,30%
Coconut oil,30%,40%,25%
Castor oil,5%,5%,20%
Palm oil,15%,15%,
Rice bran oil,,,25%
Superfat,5%,3%,4%
Lye concentration,33%,35%,33%
EO blend (lavender),3%,,
Coffee grounds,,2 tbsp,
`,
    bars: {
      'Kitchen bar':
        'olive 40 %fats, coconut 40 %fats, castor 5 %fats, palm 15 %fats, coffee-grounds 2 tbsp, superfat 3, alkaliConcentration 35',
      'Shampoo bar':
        'olive 30 %fats, coconut 25 %fats, castor 20 %fats, rice-bran 25 %fats, superfat 4, alkaliConcentration 33',
    },
    faults: [[9, 'EO blend (lavender)']],
  },
  {
    what: 'the bar named once in a column',
    sheet: `Bar,What goes in,How much,Unit
Tide,Pomace olive oil,350,g
,Coconut oil,150,g
,Sodium hydroxide,72,g
,Sea water,160,g
,Kelp powder,1,tbsp
Dune,Olive oil,400,g
,Cocoa butter,100,g
,Sodium hydroxide,66.5,g
,Water,165,g
,French pink clay,2,tsp
`,
    bars: {
      Tide: 'olive-pomace 350 g, coconut 150 g, sea-water 160 g, kelp-powder 1 tbsp, lye 72',
      Dune: 'olive 400 g, cocoa-butter 100 g, water 165 g, pink-clay 2 tsp, lye 66.5',
    },
    faults: [],
  },
  {
    what: 'blocks with heads of their own, German names and spoons',
    sheet: `Zimtseife;;
Zutat;Menge;Einheit
Olivenöl;300;g
Kokosöl;200;g
Sheabutter;50;g
Wasser;180;g
Natriumhydroxid;76,4;g
Zimt gemahlen;1;TL
;;
Meersalzseife;;
Zutat;Menge;Einheit
Kokosöl;400;g
Rizinusöl;50;g
Wasser;150;g
Natriumhydroxid;72;g
Meersalz;300;g
`,
    bars: { Meersalzseife: 'coconut 400 g, castor 50 g, water 150 g, sea-salt-fine 300 g, lye 72' },
    faults: [[8, 'Zimt gemahlen']],
  },
  {
    what: 'short names, water in percent of the oils',
    sheet: `FORMULA,OO,CO,CASTOR,SHEA,SF %,WATER % OF OILS
No. 1 Plain,70,20,5,5,5,38
No. 2 Bright,50,30,10,10,7,33
`,
    bars: {
      'No. 1 Plain': 'olive 70 %fats, coconut 20 %fats, castor 5 %fats, shea 5 %fats, superfat 5, ofFats 38',
      'No. 2 Bright':
        'olive 50 %fats, coconut 30 %fats, castor 10 %fats, shea 10 %fats, superfat 7, ofFats 33',
    },
    faults: [],
  },
  {
    what: 'an Italian list',
    sheet: `Ricetta;Ingrediente;Quantità
Sapone al caffè;Olio di oliva;600 g
;Olio di cocco;300 g
;Burro di karité;100 g
;Acqua;300 g
;Soda caustica;139 g
;Caffè macinato;20 g
Sapone alla menta;Olio di oliva;700 g
;Olio di ricino;50 g
;Olio di cocco;250 g
;Acqua;300 g
;Soda caustica;136 g
;Olio essenziale di menta;25 g
`,
    bars: {
      'Sapone al caffè': 'olive 600 g, coconut 300 g, shea 100 g, water 300 g, coffee-grounds 20 g, lye 139',
      'Sapone alla menta':
        'olive 700 g, castor 50 g, coconut 250 g, water 300 g, peppermint-oil 25 g, lye 136',
    },
    faults: [],
  },
  {
    what: 'one batch with headings for parts',
    sheet: `Master Batch - Everyday,,
Hard oils,,
Coconut,10 lbs,
Palm,8 lbs,
Soft oils,,
Olive,15 lbs,
Castor,2 lbs,
Lye,5.05 lbs,
Water,11.5 lbs,
`,
    bars: { Everyday: 'coconut 10 lb, palm 8 lb, olive 15 lb, castor 2 lb, water 11.5 lb, lye 2290.64' },
    faults: [],
  },
  {
    what: 'days, counts and a scent by name in a table',
    sheet: `Batch,Date,Oils (g),Olive,Coconut,Shea,Lye,Water,Scent,Scent g,Bars
1,3 Feb,1000,500,300,200,141,300,lavender,30,11
2,9 Feb,1000,600,250,150,138,300,peppermint,25,11
`,
    bars: {},
    faults: [
      [2, 'Scent'],
      [3, 'Scent'],
    ],
  },
  {
    what: 'bars side by side',
    sheet: `Winter 2025 recipes,,,,
,,,,
Spruce,,,Fireside,
Olive oil,500 g,,Olive oil,450 g
Coconut oil,300 g,,Coconut oil,300 g
Lye,120 g,,Lye,115 g
Water,250 g,,Water,240 g
`,
    bars: { 'Winter 2025 recipes': 'olive 500 g, coconut 300 g, water 250 g, lye 120' },
    faults: [[4, 'side by side']],
  },
  {
    what: 'a formulation by shares of the whole',
    sheet: `Formulation: Cucumber Melon
INCI,Trade name,% w/w
Olea Europaea Fruit Oil,Olive oil,38.5
Cocos Nucifera Oil,Coconut oil,19.2
Ricinus Communis Seed Oil,Castor oil,3.8
Aqua,Water,23.1
Sodium Hydroxide,Lye,9.0
Parfum,Fragrance oil cucumber,3.4
Kaolin,White clay,3.0
`,
    bars: {},
    faults: [[8, 'Parfum']],
  },
  {
    what: 'units in the rows, days and counts below',
    sheet: `Ingredient,Batch 12,Batch 13,Batch 14
Olive oil (g),700,700,650
Coconut oil (g),250,250,300
Castor oil (g),50,50,50
NaOH (g),134,134,138
Water (g),280,300,300
Lemongrass EO (g),28,,30
Turmeric (tsp),1,,
Made on,1/3/25,8/3/25,2/4/25
Bars,10,10,10
`,
    bars: {
      'Batch 12':
        'olive 700 g, coconut 250 g, castor 50 g, water 280 g, lemongrass-oil 28 g, turmeric 1 tsp, lye 134',
      'Batch 13': 'olive 700 g, coconut 250 g, castor 50 g, water 300 g, lye 134',
      'Batch 14': 'olive 650 g, coconut 300 g, castor 50 g, water 300 g, lemongrass-oil 30 g, lye 138',
    },
    faults: [],
  },
  {
    what: 'a card with its name and its fats in cells',
    sheet: `SOAP RECIPE CARD
Name,Bay Rum
Oils,1000 g
Superfat,6%
Olive oil,60%
Coconut oil,25%
Shea butter,15%
Bay EO,2%
Clove EO,0.5%
`,
    bars: {
      'Bay Rum':
        'olive 60 %fats, coconut 25 %fats, shea 15 %fats, bay-laurel-oil 2 %fats, clove-bud-oil 0.5 %fats, superfat 6, ofFats 33',
    },
    faults: [],
  },
  {
    what: 'a list whose amounts no head names',
    sheet: `Produkt,Rohstoff,Einsatz %
Ringelblume,Olivenöl,42
Ringelblume,Kokosöl,18
Ringelblume,Bienenwachs,2
Ringelblume,Wasser,26
Ringelblume,NaOH,9
Ringelblume,Ringelblumenblüten,1
Ringelblume,Lavendelöl,2
Schafmilch,Olivenöl,45
Schafmilch,Kokosöl,20
Schafmilch,Schafmilch,26
Schafmilch,NaOH,9
`,
    bars: {},
    faults: [
      [7, 'Ringelblumenblüten'],
      [11, 'Schafmilch'],
    ],
  },
];
