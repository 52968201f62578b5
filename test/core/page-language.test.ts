/** Which language a page is in: papers as they are written, and as they come out of a reader that knows English letters alone. */
import { expect } from 'chai';
import { pageLanguage } from '../../src/core/paperwork/page-language';

const PAGES: Record<string, readonly string[]> = {
  eng: [
    'Certificate of Conformity. Product name: Coal and Violets. The product is in conformity with the standard. Maximum level by category',
    'This certificate is issued by the supplier for the product named above and is not valid for other products.',
  ],
  deu: [
    'Konformitätserklärung. Produktname: Kohle und Veilchen. Datum der Ausgabe. Höchstmenge in der Anwendung nach Kategorie. Seife, Kategorie 9',
    'Das Produkt ist konform mit den Standards der Branche. HOchstmenge fiir Seife. Das Zertifikat wird durch den Hersteller ausgestellt',
  ],
  fra: [
    'Certificat de conformité. Nom du produit. Date d’émission. Teneur maximale par catégorie dans le produit fini. Savon, catégorie 9',
    'Le produit est conforme selon les normes et ne contient pas de phtalates. Numero du certificat',
  ],
  ita: [
    'Certificato di conformità. Nome del prodotto. Data di emissione. Livello massimo secondo la categoria. Il prodotto è conforme',
    'Il fornitore dichiara che il prodotto della categoria 9 non è testato. Numero di certificato',
  ],
  spa: [
    'Certificado de conformidad. Nombre del producto. Fecha. Nivel máximo según la categoría. El producto es conforme con las normas',
    'El proveedor declara que los productos de la categoria 9 son conformes. Numero del certificado y fecha',
  ],
  nld: [
    'Certificaat van conformiteit. Productnaam. Datum van uitgifte. Het maximaal gehalte volgens de categorie. Zeep, categorie 9',
    'De leverancier verklaart dat het product voldoet. Het niveau is niet hoger dan het maximaal gehalte voor de categorie',
  ],
  pol: [
    'Certyfikat zgodności. Nazwa produktu. Data wydania. Maksymalny poziom dla kategorii 9. Produkt jest zgodny z normą',
    'Dostawca oświadcza, że produkt nie zawiera ftalanów. Maksymalny poziom w produkcie oraz numer partii od dostawcy i data',
  ],
};

describe('the language of a page', () => {
  for (const [language, texts] of Object.entries(PAGES))
    it(`is told by its little words: ${language}`, () => {
      for (const text of texts) expect(pageLanguage(text), text).to.equal(language);
    });

  it('is left open where there are too few, or as many of two', () => {
    for (const text of ['', '4 5A 9 1.25 %', 'Coal and Violets', 'Linalool 78-70-6 Limonene 5989-27-5'])
      expect(pageLanguage(text), text).to.equal(null);
    expect(
      pageLanguage('the name of the product for the supplier. der die das und nicht für mit von'),
    ).to.equal(null);
  });
});
