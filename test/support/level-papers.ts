/** Certificates and declarations of many kinds, put down before the reader was tried on them. */

/** What it is, the level of category 9 in percent (null: none that may be taken unasked), the paper. */
export const PAPERS: readonly (readonly [string, number | null, string])[] = [
  [
    'ppm column',
    2.75,
    `Certificate of conformity\nProduct: Rainy Platform\nCategory  Maximum level (ppm)\n4  12,400\n9  27,500\n10A  27,500\nDate 2026-03-04  No. RP-11`,
  ],
  [
    'mg/kg column',
    0.85,
    `IFRA Certificate\nProduct name: Tea Trolley\nIFRA category\tMax use level (mg/kg)\n5A\t3200\n9\t8500\nCertificate no. 4471 of 12 May 2026`,
  ],
  [
    'g/kg column',
    2.4,
    `Zertifikat\nProdukt: Nachtzug\nKategorie    Höchstmenge in g/kg\n5A    6,0\n9    24,0\n10A  24,0\nNr. 55, 04.03.2026`,
  ],
  [
    'g/kg in cell',
    2.4,
    `Certificate of compliance\nFragrance: Signal Lamp\nCategory 4   9.1 g/kg\nCategory 9   24.0 g/kg\nIssued 2026-01-05 ref SL-3`,
  ],
  [
    'fraction column',
    3.5,
    `Certificate\nProduct: Buffer Stop\nCategory | Max. fraction (w/w)\n1 | 0.002\n9 | 0.035\n10B | 0.11\nNo 9 dated 2025-11-11`,
  ],
  [
    'permille sentence',
    1.2,
    `Certificate of conformity No 71\nFragrance Goods Van\nFor rinse-off soap products (category 9) the maximum level is 12 ‰ of the finished product.\n2026-02-02`,
  ],
  [
    'parts per thousand',
    1.5,
    `Certificate 12\nProduct: Railcar\nCategory, maximum in parts per thousand\n4, 5\n9, 15\n2026-02-02`,
  ],
  [
    'parts in sentence',
    4.2,
    `Conformity certificate\nThe fragrance compound "Waybill" may be used in Category 9 (bar soap, rinse-off) at up to 4.2 % and in Category 4 at up to 0.7 %.\nIssued 7 March 2026, reference WB-7`,
  ],
  [
    'ppm sentence',
    0.9,
    `Certificate of compliance\nCompound: Sleeper Car\nMaximum use in category 9: 9000 ppm.\nMaximum use in category 4: 2000 ppm.\n2026-04-01`,
  ],
  [
    'two fragrances in columns',
    null,
    `Certificate of conformity\nCategory   Platform One   Platform Two\n4   0.9 %   1.4 %\n9   2.0 %   5.5 %\n10A   2.0 %   5.5 %\n2026-04-01 no 5`,
  ],
  [
    'two fragrances in rows',
    null,
    `Certificate of conformity, several products\nProduct   Cat 4   Cat 9   Cat 10A\nStation Rose   0.4   1.1   1.1\nStation Lily   0.9   3.3   3.3\n2026-04-01 no 6`,
  ],
  [
    'German thousands ppm',
    1.25,
    `Konformitätszertifikat\nProdukt: Weiche\nKategorie   ppm\n4   3.500\n5A   4.250\n9   12.500\n10A   12.500\nNr 8, 1. April 2026`,
  ],
  [
    'English thousands ppm',
    1.25,
    `Certificate\nProduct: Points\nCategory   ppm\n4   3,500\n5A   4,250\n9   12,500\n10A   12,500\nNo 8, 1 April 2026`,
  ],
  [
    'NR',
    null,
    `Certificate of conformity\nProduct: Guard\nCategory 4: 1.0 %\nCategory 9: NR\nCategory 10A: 2 %\nNo 3 2026-01-01`,
  ],
  [
    'unlimited',
    100,
    `Certificate of conformity\nProduct: Fireman\nCategory 4: 20 %\nCategory 9: no restriction\nNo 3 2026-01-01`,
  ],
  [
    'not permitted',
    0,
    `Certificate of conformity\nProduct: Stoker\nCategory 4: 0.1 %\nCategory 9: not permitted\nNo 3 2026-01-01`,
  ],
  [
    'not supported',
    null,
    `Certificate of conformity\nProduct: Porter\nCategory 4: 0.1 %\nCategory 9: not supported\nNo 3 2026-01-01`,
  ],
  [
    'see note',
    null,
    `Certificate of conformity\nProduct: Clerk\nCategory   Level\n4   1.2 %\n9   see note 2\n10A   3 %\nNote 1: leave-on.\nNote 2: 2.6 % provided peroxides are below 20 mmol/l.\nNo 3 2026-01-01`,
  ],
  [
    'merged',
    1.9,
    `Certificate of conformity\nProduct: Tender\nCategories   Level\n1   0.1 %\n5A, 5C, 6, 9, 10A   1.9 %\n11A   0.5 %\nNo 3 2026-01-01`,
  ],
  [
    'merged without nine',
    null,
    `Certificate of conformity\nProduct: Coupling\nCategories   Level\n1   0.1 %\n5A, 5C, 6, 10A   1.9 %\n11A   0.5 %\nNo 3 2026-01-01`,
  ],
  [
    'range of categories',
    null,
    `Certificate of conformity\nProduct: Axle\nCategories   Level\n1 to 3   0.1 %\n7 - 10   1.7 %\nNo 3 2026-01-01`,
  ],
  [
    'old class 9.A',
    5,
    `Certificate, 43rd amendment\nProduct: Old Line\nClass 3.A   0.5 %\nClass 9.A   5 %\nClass 9.B   5 %\nClass 11.A  Unrestricted\n2008-05-05 no 77`,
  ],
  [
    'old class no nine',
    null,
    `Certificate, 38th amendment\nProduct: Older Line\nSkin contact 1.5 %\nNon skin contact 10 %\n2004-05-05 no 7`,
  ],
  [
    'Polish',
    3.1,
    `Certyfikat zgodności\nNazwa produktu: Semafor\nKategoria   Maksymalny poziom\n4   0,8 %\n9   3,1 %\n10A   3,1 %\nData wystawienia: 12.03.2026  Numer: S/44`,
  ],
  [
    'Dutch types',
    2.2,
    `Conformiteitscertificaat\nProduct: Wissel\nProducttype   Maximaal gehalte\nLippenproducten   0,3 %\nZeep (vast en vloeibaar), douchegel   2,2 %\nHuishoudelijke reinigers   2,2 %\nDatum 3 februari 2026 nr 12`,
  ],
  [
    'product types English',
    1.6,
    `Certificate of conformity\nProduct: Crossing\nProduct type   Max level\nLip products   0.1 %\nBar soap, liquid soap, body wash   1.6 %\nCandles   no limit\n2026-02-02 no 1`,
  ],
  [
    'comma table',
    3.5,
    `Certificato di conformità\nProdotto: Binario\nCategoria; Livello massimo (%)\n4; 0,9\n9; 3,5\n10A; 3,5\nN. 18 del 04/05/2026`,
  ],
  [
    'French',
    2.8,
    `Certificat de conformité\nProduit : Quai\nCatégorie   Teneur maximale\n4   0,7 %\n9   2,8 %\nN° 18 du 4 mai 2026`,
  ],
  [
    'Spanish',
    2.8,
    `Certificado de conformidad\nProducto: Andén\nCategoría   Nivel máximo\n4   0,7 %\n9   2,8 %\nNº 18, 4 de mayo de 2026`,
  ],
  [
    'ten times',
    null,
    `Certificate of conformity\nProduct: Tenfold\nCategory   Level %\n1   0.10\n2   0.05\n3   0.20\n4   0.60\n5A   0.30\n6   0.20\n7A   0.25\n8   0.10\n9   60\n10A   1.0\n11A   0.10\nNo 3 2026-01-01`,
  ],
  [
    'over hundred',
    null,
    `Certificate of conformity\nProduct: Over\nCategory   Level\n4   120\n9   350\n10A   350\nNo 3 2026-01-01`,
  ],
  [
    'less than sign',
    2,
    `Certificate of conformity\nProduct: Less\nCategory 4: < 0.5 %\nCategory 9: ≤ 2 %\nNo 3 2026-01-01`,
  ],
  [
    'in product vs in oil',
    2,
    `Certificate of conformity\nProduct: Twice\nCategory   Max in finished product   Max in fragrance oil\n4   0.5 %   50 %\n9   2 %   100 %\nNo 3 2026-01-01`,
  ],
  [
    'oil first',
    2,
    `Certificate of conformity\nProduct: Twice B\nCategory   Concentration of restricted material in oil   Max use of oil in product\n4   12 %   0.5 %\n9   12 %   2 %\nNo 3 2026-01-01`,
  ],
  [
    'amendment columns',
    null,
    `Certificate of conformity\nProduct: Old and new\nCategory   50th amendment   51st amendment\n4   0.9 %   0.5 %\n9   3 %   2 %\nNo 3 2026-01-01`,
  ],
  [
    'roman categories',
    null,
    `Certificate\nProduct: Roman\nCategory IV   0.5 %\nCategory IX   2 %\nNo 3 2026-01-01`,
  ],
  [
    'cat words',
    2.5,
    `Certificate\nProduct: Words\nCat. 9 - products with body exposure, rinsed off (bar soap, shampoo): two and a half percent (2.5 %)\nNo 3 2026-01-01`,
  ],
  [
    'spread lines',
    2.5,
    `Certificate\nProduct: Spread\nCategory\n4\n9\n10A\nLevel\n0.5 %\n2.5 %\n2.5 %\nNo 3 2026-01-01`,
  ],
  [
    'horizontal',
    2.5,
    `Certificate\nProduct: Across\nCategory   1   4   5A   9   10A\nMax %   0.1   0.5   0.6   2.5   2.5\nNo 3 2026-01-01`,
  ],
  [
    'w/w of batch',
    1.8,
    `Certificate of conformity for Dusk\nMaximum: Category 9 1.8% w/w\nCategory 4 0.6% w/w\n2026-01-01 No 3`,
  ],
  [
    'space thousands',
    1.25,
    `Certificate\nProduct: Gap\nCategory   mg/kg\n4   3 500\n9   12 500\nNo 8, 1 April 2026`,
  ],
  [
    'decimal point per mille',
    1.25,
    `Certificate\nProduct: Mille\nCategory   ‰\n4   3.5\n9   12.5\nNo 8, 1 April 2026`,
  ],
  [
    'promille German head',
    1.8,
    `Zertifikat 77\nProdukt: Bahnsteig\nKategorie   Höchstwert in Promille\n4   6\n9   18\n10A   18\n12.02.2026`,
  ],
  [
    'ppm said above',
    1.1,
    `Certificate 90\nProduct: Lantern\nAll maximum levels in ppm.\nCategory   Level\n4   4000\n9   11000\n10A   11000\n2026-02-02`,
  ],
  [
    'mg/kg said below the head',
    1.1,
    `Certificate 91\nProduct: Lantern B\nCategory   Maximum\n   mg/kg\n4   4000\n9   11000\n2026-02-02`,
  ],
  [
    'percent beside ppm',
    1.3,
    `Certificate 92\nProduct: Both\nCategory   Max. %   Max. ppm\n4   0.4   4000\n9   1.3   13000\n10A   1.3   13000\n2026-02-02`,
  ],
  [
    'ppm beside percent',
    1.3,
    `Certificate 93\nProduct: Both B\nCategory   Max. ppm   Max. %\n4   4000   0.4\n9   13000   1.3\n10A   13000   1.3\n2026-02-02`,
  ],
  [
    'pipe table',
    2.9,
    `| Category | Description | Max level |\n| 4 | fine fragrance | 0.9 % |\n| 9 | soap, rinse-off | 2.9 % |\nCertificate 94, product Pipe, 2026-02-02`,
  ],
  [
    'description has numbers',
    2.9,
    `Certificate 95\nProduct: Numbers\nCategory   Description   Level\n4   Hydroalcoholic, 70 % alcohol   0.9 %\n9   Body wash, 200 ml and soap 100 g   2.9 %\n2026-02-02`,
  ],
  [
    'category nine only in sentence with two figures',
    null,
    `Certificate 96\nProduct: Sentences\nAt 5 % in the soap base (category 9) the fragrance contains 0.3 % limonene; the maximum is 3 %.\n2026-02-02`,
  ],
  [
    'not for category 9',
    null,
    `Certificate 97\nProduct: Not nine\nThis fragrance is for candles (category 12) only. Not assessed for category 9.\nCategory 12: 100 %\n2026-02-02`,
  ],
  [
    'cat 9 footnote mark',
    2.4,
    `Certificate 98\nProduct: Star\nCategory   Level\n4   0.5 %*\n9   2.4 %*\n10A   2.4 %\n* calculated\n2026-02-02`,
  ],
  [
    'cat 9 superscript',
    2.4,
    `Certificate 99\nProduct: Sup\nCategory   Level\n4   0.5 %\n9   2.4 % (1)\n10A   2.4 %\n(1) peroxide below 20 mmol/l\n2026-02-02`,
  ],
  [
    'comma decimals with thousands ppm',
    2.35,
    `Certificat 12\nProduit : Voie\nCatégorie   ppm\n4   4 500\n5A   4 750\n9   23 500\n2 février 2026`,
  ],
  [
    'apostrophe thousands',
    2.35,
    `Zertifikat 13\nProdukt: Gleis\nKategorie   mg/kg\n4   4'500\n9   23'500\n02.02.2026`,
  ],
  [
    'gramme par kilo words',
    2.3,
    `Certificat 14\nProduit : Rail\nCatégorie 9 : 23 g/kg de produit fini\nCatégorie 4 : 6 g/kg de produit fini\n2 février 2026`,
  ],
  [
    'dosage range',
    null,
    `Certificate 15\nProduct: Range\nCategory 9: 1 - 3 %\nCategory 4: 0.5 - 1 %\n2026-02-02`,
  ],
  [
    'recommended beside max',
    3,
    `Certificate 16\nProduct: Recommend\nCategory   Recommended   Maximum\n4   0.3 %   0.6 %\n9   1 %   3 %\n2026-02-02`,
  ],
  [
    'max beside recommended',
    3,
    `Certificate 17\nProduct: Recommend B\nCategory   Maximum   Recommended\n4   0.6 %   0.3 %\n9   3 %   1 %\n2026-02-02`,
  ],
  [
    'euro and lot numbers',
    2.2,
    `Certificate no 2026/9-3\nProduct: Lot 9 blend\nLot 9 of 12\nCategory 4  0.8 %\nCategory 9  2.2 %\nPrice 9 EUR\n2026-02-02`,
  ],
  [
    'lost point 22 for 2.2',
    null,
    `Certificate 19\nProduct: Lost\nCategory   Level\n1   0.2\n4   0.8\n5A   0.5\n8   0.2\n9   22\n10A   2.2\n2026-02-02`,
  ],
  [
    'limits per substance',
    null,
    `Certificate 20\nProduct: Substances\nSubstance   Category 4   Category 9\nCitral 5392-40-5   0.6 %   1.2 %\nEugenol 97-53-0   2.5 %   4.9 %\n2026-02-02`,
  ],
];

/** What it is, shares in percent by constituent (null: none that may be taken unasked), the paper. */
export const DECLARATIONS: readonly (readonly [string, Record<string, number | null>, string])[] = [
  [
    'ppm head',
    { linalool: 1.2, limonene: 0.35 },
    `Allergen declaration\nProduct: Lantern\nSubstance   CAS   ppm\nLinalool   78-70-6   12000\nLimonene   5989-27-5   3500\n2026-02-02 No 1`,
  ],
  [
    'g/kg head',
    { linalool: 1.2, limonene: 0.35 },
    `Allergen declaration\nProduct: Lantern\nSubstance   CAS   g/kg\nLinalool   78-70-6   12.0\nLimonene   5989-27-5   3.5\n2026-02-02 No 1`,
  ],
  [
    'unit in title',
    { linalool: 1.2, limonene: 0.35 },
    `Allergens in mg/kg of the oil\nProduct: Lantern\nLinalool   78-70-6   12000\nLimonene   5989-27-5   3500\n2026-02-02 No 1`,
  ],
  [
    'per mille',
    { linalool: 1.2, limonene: 0.35 },
    `Allergendeklaration\nProdukt: Lantern\nStoff   CAS   Gehalt ‰\nLinalool   78-70-6   12,0\nLimonene   5989-27-5   3,5\n02.02.2026 Nr 1`,
  ],
  [
    'fraction',
    { linalool: 1.2, limonene: 0.35 },
    `Allergen declaration\nProduct: Lantern\nSubstance   CAS   Mass fraction\nLinalool   78-70-6   0.012\nLimonene   5989-27-5   0.0035\n2026-02-02 No 1`,
  ],
  [
    'mixed units in cells',
    { linalool: 1.2, limonene: 0.35 },
    `Allergen declaration\nProduct: Lantern\nSubstance   CAS   Content\nLinalool   78-70-6   1.2 %\nLimonene   5989-27-5   3500 ppm\n2026-02-02 No 1`,
  ],
  [
    'thousands ppm',
    { linalool: 1.25, limonene: 0.35, citral: 0.21 },
    `Allergen declaration\nProduct: Lantern\nSubstance   CAS   ppm\nLinalool   78-70-6   12,500\nLimonene   5989-27-5   3,500\nCitral   5392-40-5   2,100\n2026-02-02 No 1`,
  ],
  [
    'two products in columns',
    { linalool: null },
    `Allergen declaration\nSubstance   CAS   Platform One %   Platform Two %\nLinalool   78-70-6   1.2   3.4\nLimonene   5989-27-5   0.5   0.9\n2026-02-02 No 1`,
  ],
  [
    'in finished product at 3 %',
    { linalool: 1.2 },
    `Allergen declaration\nProduct: Lantern\nSubstance   CAS   % in fragrance   % in soap at 3 %\nLinalool   78-70-6   1.2   0.036\nLimonene   5989-27-5   0.5   0.015\n2026-02-02 No 1`,
  ],
  [
    'decimal comma',
    { linalool: 1.2, limonene: 0.35 },
    `Allergènes\nProduit : Lanterne\nSubstance   CAS   %\nLinalol   78-70-6   1,2\nLimonène   5989-27-5   0,35\n2 février 2026 N° 1`,
  ],
  [
    'unit in title, small figures',
    { linalool: 0.0085, limonene: 0.004 },
    'Allergens in mg/kg of the oil\nProduct: Lantern\nLinalool   78-70-6   85\nLimonene   5989-27-5   40\n2026-02-02 No 1',
  ],
];
