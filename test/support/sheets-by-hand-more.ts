/** More sheets as makers have them, and what they mean. */
import type { SheetByHand } from './sheets-by-hand';

export const MORE_SHEETS_BY_HAND: readonly SheetByHand[] = [
  {
    what: 'a card under its title, amounts beside percents, parts with notes',
    sheet: `"Sweet Orange & Clove, 3 lb batch"
Base Oils (48 oz),,
Olive,24.0 oz,50%
Coconut (76),12.0 oz,25%
Lard,9.6 oz,20%
Castor,2.4 oz,5%
Lye Water,,
Water,15.5 oz,
NaOH,6.7 oz,
Add-ins,,
Sweet orange 5x EO,1.8 oz,
Clove bud EO,0.4 oz,
Annatto infused olive oil,1 oz,
`,
    bars: {},
    faults: [
      [11, 'Sweet orange 5x EO'],
      [13, 'Annatto infused olive oil'],
    ],
  },
  {
    what: 'numbered bars, the name in the second column',
    sheet: `#,Soap name,Superfat,Olive,Coconut,Palm,Shea,Castor,Lye (g),Water (g),Fragrance,FO (g),Colour
1,Moss,5%,400,300,200,50,50,143,300,Oakmoss,30,chromium green
2,Plum,5%,450,250,200,50,50,139,300,Plum,30,mica
`,
    bars: {},
    faults: [
      [2, 'FO'],
      [3, 'FO'],
    ],
  },
  {
    what: 'a German card with its sum',
    sheet: `Seife: Lavendeltraum,,
Fette,Gramm,Prozent
Olivenöl,400,40
Kokosfett,250,25
Palmöl bio,200,20
Rapsöl,100,10
Rizinusöl,50,5
Gesamtfettmenge,1000,100
Lauge,,
NaOH,139,
Wasser,300,
Zusätze,,
Lavendelöl äth.,25,
Rosa Tonerde,10,
`,
    bars: {},
    faults: [[14, 'Rosa Tonerde']],
  },
  {
    what: 'a works’ list with ids, phases and kilograms',
    sheet: `Formula ID,Formula,Raw material,Phase,kg,Comments
F-001,Citrus Slab,Olive Oil,A,4.5,
F-001,Citrus Slab,Coconut Oil,A,3.0,
F-001,Citrus Slab,Shea Butter,A,1.5,
F-001,Citrus Slab,Sodium Hydroxide,B,1.24,
F-001,Citrus Slab,Deionised Water,B,2.9,
F-001,Citrus Slab,Lemon EO,C,0.15,
F-002,Plain Slab,Olive Oil,A,6.0,
F-002,Plain Slab,Coconut Oil,A,3.0,
F-002,Plain Slab,Sodium Hydroxide,B,1.26,
F-002,Plain Slab,Deionised Water,B,2.9,
`,
    bars: {
      'Citrus Slab': 'olive 4.5 kg, coconut 3 kg, shea 1.5 kg, water 2.9 kg, lemon-oil 0.15 kg, lye 1240',
      'Plain Slab': 'olive 6 kg, coconut 3 kg, water 2.9 kg, lye 1260',
    },
    faults: [],
  },
  {
    what: 'a recipe as it is typed, amounts first',
    sheet: `Recipe: Honey Oat
1.5 lb olive oil
1 lb coconut oil
`,
    bars: { 'Honey Oat': 'olive 1.5 lb, coconut 1 lb, superfat 5, ofFats 33' },
    faults: [],
  },
  {
    what: 'grams beside percents',
    sheet: `Product,Ingredient,Grams,% of oils
Pebble,Olive Oil,480,60
Pebble,Coconut Oil,200,25
Pebble,Castor Oil,40,5
Pebble,Cocoa Butter,80,10
Pebble,Lye,112,
Pebble,Water,240,
Pebble,Cedarwood Atlas EO,20,2.5
Kelp,Olive Oil,560,70
Kelp,Coconut Oil,240,30
Kelp,Lye,115,
Kelp,Water,240,
`,
    bars: {
      Pebble:
        'olive 480 g, coconut 200 g, castor 40 g, cocoa-butter 80 g, water 240 g, cedarwood-atlas-oil 20 g, lye 112',
      Kelp: 'olive 560 g, coconut 240 g, water 240 g, lye 115',
    },
    faults: [],
  },
  {
    what: 'names above their rows, units beside amounts',
    sheet: `Calm Bar,,
Olive oil,16,oz
Coconut oil,8,oz
Shea butter,4,oz
Lye,3.9,oz
Water,8,oz
Lavender EO,1,oz
,,
Wake Up Bar,,
Olive oil,14,oz
Coconut oil,10,oz
Lye,3.6,oz
Water,7.5,oz
Peppermint EO,0.8,oz
`,
    bars: {
      'Calm Bar': 'olive 16 oz, coconut 8 oz, shea 4 oz, water 8 oz, lavender-oil 1 oz, lye 110.56',
      'Wake Up Bar': 'olive 14 oz, coconut 10 oz, water 7.5 oz, peppermint-oil 0.8 oz, lye 102.06',
    },
    faults: [],
  },
  {
    what: 'percents across, the scent in percent by its head',
    sheet: `Oils / bar,Baby,Facial,Hand,Dog
Olive,80,55,40,50
Coconut,10,20,35,30
Castor,5,10,5,10
Shea,5,15,20,10
SF%,8,6,5,5
Lavender EO (%),,2,3,1
`,
    bars: {
      Baby: 'olive 80 %fats, coconut 10 %fats, castor 5 %fats, shea 5 %fats, superfat 8, ofFats 33',
      Facial:
        'olive 55 %fats, coconut 20 %fats, castor 10 %fats, shea 15 %fats, lavender-oil 2 %fats, superfat 6, ofFats 33',
      Hand: 'olive 40 %fats, coconut 35 %fats, castor 5 %fats, shea 20 %fats, lavender-oil 3 %fats, superfat 5, ofFats 33',
      Dog: 'olive 50 %fats, coconut 30 %fats, castor 10 %fats, shea 10 %fats, lavender-oil 1 %fats, superfat 5, ofFats 33',
    },
    faults: [],
  },
  {
    what: 'a French table',
    sheet: `Recette;Huile d'olive (g);Huile de coco (g);Beurre de karité (g);Soude (g);Eau (g);HE lavande (g)
Douceur;600;250;150;136;300;20
Vive;500;400;100;146;310;25
`,
    bars: {
      Douceur: 'olive 600 g, coconut 250 g, shea 150 g, water 300 g, lavender-oil 20 g, lye 136',
      Vive: 'olive 500 g, coconut 400 g, shea 100 g, water 310 g, lavender-oil 25 g, lye 146',
    },
    faults: [],
  },
  {
    what: 'more pairs of columns than one: told as too little',
    sheet: `Name,Type,Oil 1,% 1,Oil 2,% 2
Simple,bar,Olive,70,Coconut,30
`,
    bars: { Simple: 'olive 70 %fats, superfat 5, ofFats 33' },
    faults: [],
  },
  {
    what: 'a Dutch card',
    sheet: `Zeep: Duinzeep
Grondstof,Hoeveelheid
Olijfolie,500 g
Kokosolie,250 g
Sheaboter,100 g
Water,270 g
NaOH,118 g
Lavendelolie,20 g
`,
    bars: { Duinzeep: 'olive 500 g, coconut 250 g, shea 100 g, water 270 g, lavender-oil 20 g, lye 118' },
    faults: [],
  },
];
