/** How made-up suppliers put things, in six languages; several ways for each. */
import type { Language } from './truth';

type Ways = Record<Language, readonly string[]>;

export const CERT_TITLE: Ways = {
  en: ['Certificate of Conformity', 'CERTIFICATE OF COMPLIANCE', 'Conformity Certificate'],
  de: ['Konformitätszertifikat', 'Konformitätsbescheinigung', 'Zertifikat'],
  fr: ['Certificat de conformité', 'CERTIFICAT DE CONFORMITÉ'],
  es: ['Certificado de conformidad', 'CERTIFICADO'],
  it: ['Certificato di conformità', 'Dichiarazione di conformità'],
  nl: ['Conformiteitscertificaat', 'Certificaat van overeenstemming'],
};
export const DECL_TITLE: Ways = {
  en: ['Allergen Declaration', 'Declaration of fragrance allergens', 'Allergen statement'],
  de: ['Allergenerklärung', 'Erklärung zu Allergenen'],
  fr: ['Déclaration des allergènes', 'Déclaration d’allergènes'],
  es: ['Declaración de alérgenos'],
  it: ['Dichiarazione degli allergeni', 'Dichiarazione allergeni'],
  nl: ['Allergenenverklaring', 'Verklaring van allergenen'],
};
export const NUMBER_LABEL: Ways = {
  en: ['Certificate No.', 'Document number', 'Our ref', 'Certificate number', 'Reference', 'Doc. no.'],
  de: ['Zertifikat-Nr.', 'Dokumentnummer', 'Zertifikatsnummer', 'Unser Zeichen'],
  fr: ['Certificat n°', 'N° de document', 'Référence', 'Numéro de certificat'],
  es: ['Certificado n.º', 'Número de documento', 'Referencia'],
  it: ['Certificato n.', 'Numero documento', 'Riferimento'],
  nl: ['Certificaat nr.', 'Documentnummer', 'Referentie'],
};
export const DATE_LABEL: Ways = {
  en: ['Date', 'Date of issue', 'Issued', 'Issue date'],
  de: ['Datum', 'Ausstellungsdatum', 'Ausgestellt am'],
  fr: ['Date', 'Date d’émission', 'Établi le'],
  es: ['Fecha', 'Fecha de emisión', 'Emitido el'],
  it: ['Data', 'Data di emissione', 'Emesso il'],
  nl: ['Datum', 'Datum van afgifte', 'Opgesteld op'],
};
export const MATERIAL_LABEL: Ways = {
  en: ['Product', 'Product name', 'Fragrance', 'Name of product', 'Material', 'Compound name'],
  de: ['Produkt', 'Produktbezeichnung', 'Artikel', 'Handelsname', 'Parfümöl'],
  fr: ['Produit', 'Nom du produit', 'Désignation', 'Parfum'],
  es: ['Producto', 'Nombre del producto', 'Fragancia'],
  it: ['Prodotto', 'Nome prodotto', 'Fragranza', 'Denominazione'],
  nl: ['Product', 'Productnaam', 'Benaming', 'Parfumolie'],
};
export const ISSUER_LABEL: Ways = {
  en: ['Supplier', 'Issued by', 'Company', 'Manufacturer'],
  de: ['Lieferant', 'Hersteller', 'Aussteller'],
  fr: ['Fournisseur', 'Société', 'Émis par'],
  es: ['Proveedor', 'Empresa', 'Emitido por'],
  it: ['Fornitore', 'Azienda', 'Emesso da'],
  nl: ['Leverancier', 'Bedrijf', 'Fabrikant'],
};
/** {n} stands for the edition, {o} for it as an ordinal. */
export const EDITION: Ways = {
  en: [
    'complies with the standards up to and including the {o} Amendment',
    'Amendment: {n}',
    '{o} Amendment',
    'in accordance with the {o} edition of the industry standard',
    'Amendment no. {n}',
    'IFRA {n}',
  ],
  de: [
    'entspricht der {n}. Änderung',
    '{n}. Amendment',
    'Amendment {n}',
    'gemäß der {n}. Ausgabe der Standards',
  ],
  fr: ['conforme au {n}e amendement', '{n}ème amendement', 'Amendement n° {n}'],
  es: ['conforme a la {n}ª enmienda', 'Enmienda {n}', 'Enmienda n.º {n}'],
  it: ['conforme al {n}° emendamento', 'Emendamento {n}', '{n}a edizione degli standard'],
  nl: ['voldoet aan het {n}e amendement', 'Amendement {n}', '{n}e editie van de standaard'],
};
export const CATEGORY: Ways = {
  en: ['Category', 'Category', 'Cat.', 'Class', 'CATEGORY'],
  de: ['Kategorie', 'Kat.', 'Klasse'],
  fr: ['Catégorie', 'Cat.', 'Classe'],
  es: ['Categoría', 'Cat.', 'Clase'],
  it: ['Categoria', 'Cat.', 'Classe'],
  nl: ['Categorie', 'Cat.', 'Klasse'],
};
export const LEVEL_HEAD: Ways = {
  en: [
    'Maximum level (%)',
    'Max. use level',
    'Level of use (%)',
    'Maximum concentration in finished product, %',
    'Limit',
  ],
  de: ['Höchstgehalt (%)', 'Max. Einsatzkonzentration %', 'Grenzwert in %'],
  fr: ['Niveau maximal (%)', 'Concentration max. %', 'Teneur maximale (%)'],
  es: ['Nivel máximo (%)', 'Concentración máxima %', 'Límite (%)'],
  it: ['Livello massimo (%)', 'Concentrazione massima %', 'Limite (%)'],
  nl: ['Maximumgehalte (%)', 'Max. concentratie %', 'Limiet (%)'],
};
export const DESCRIPTION_HEAD: Ways = {
  en: ['Product type', 'Description'],
  de: ['Produktart', 'Beschreibung'],
  fr: ['Type de produit', 'Description'],
  es: ['Tipo de producto', 'Descripción'],
  it: ['Tipo di prodotto', 'Descrizione'],
  nl: ['Productsoort', 'Omschrijving'],
};
export const FREE: Ways = {
  en: ['Not restricted', 'No Restriction', 'Unrestricted', '100', 'No restriction'],
  de: ['Keine Beschränkung', 'Nicht beschränkt', '100'],
  fr: ['Pas de restriction', 'Sans restriction', '100'],
  es: ['Sin restricción', 'No restringido', '100'],
  it: ['Nessuna restrizione', 'Senza restrizioni', '100'],
  nl: ['Geen beperking', 'Onbeperkt', '100'],
};
export const FORBIDDEN: Ways = {
  en: ['Not permitted', 'Not allowed', 'Prohibited', '0'],
  de: ['Nicht erlaubt', 'Nicht zulässig', 'Verboten'],
  fr: ['Interdit', 'Non autorisé', '0'],
  es: ['Prohibido', 'No permitido'],
  it: ['Vietato', 'Non consentito'],
  nl: ['Niet toegestaan', 'Verboden'],
};
export const ND: Ways = {
  en: ['ND', 'n.d.', 'not detected', '0'],
  de: ['n.n.', 'nicht nachweisbar', '0'],
  fr: ['ND', 'non détecté'],
  es: ['ND', 'no detectado'],
  it: ['ND', 'non rilevato'],
  nl: ['ND', 'niet aantoonbaar'],
};
export const TRACES: Ways = {
  en: ['traces'],
  de: ['Spuren'],
  fr: ['traces'],
  es: ['trazas'],
  it: ['tracce'],
  nl: ['sporen'],
};
export const NAME_HEAD: Ways = {
  en: ['Name', 'Substance', 'INCI name', 'Allergen'],
  de: ['Stoff', 'Bezeichnung', 'Inhaltsstoff', 'INCI'],
  fr: ['Nom INCI', 'Substance', 'Allergène'],
  es: ['Sustancia', 'Nombre INCI', 'Componente'],
  it: ['Sostanza', 'Nome INCI', 'Componente'],
  nl: ['Stof', 'INCI-naam', 'Naam'],
};
export const SHARE_HEAD: Ways = {
  en: ['Content', 'Concentration', 'Amount in fragrance'],
  de: ['Gehalt', 'Konzentration', 'Anteil im Parfümöl'],
  fr: ['Teneur', 'Concentration'],
  es: ['Contenido', 'Concentración'],
  it: ['Contenuto', 'Concentrazione'],
  nl: ['Gehalte', 'Concentratie'],
};
export const FOUND_HEAD: Ways = {
  en: ['Found', 'Result'],
  de: ['Befund', 'Ergebnis'],
  fr: ['Résultat', 'Trouvé'],
  es: ['Resultado', 'Hallado'],
  it: ['Risultato', 'Trovato'],
  nl: ['Resultaat', 'Gevonden'],
};
export const SPEC_HEAD: Ways = {
  en: ['Specification', 'Spec. range'],
  de: ['Spezifikation', 'Sollbereich'],
  fr: ['Spécification'],
  es: ['Especificación'],
  it: ['Specifica'],
  nl: ['Specificatie'],
};
export const FLASH: Ways = {
  en: ['Flash point'],
  de: ['Flammpunkt'],
  fr: ['Point éclair', 'Point d’éclair'],
  es: ['Punto de inflamación'],
  it: ['Punto di infiammabilità'],
  nl: ['Vlampunt'],
};
export const MONTHS: Ways = {
  en: [
    'January',
    'February',
    'March',
    'April',
    'May',
    'June',
    'July',
    'August',
    'September',
    'October',
    'November',
    'December',
  ],
  de: [
    'Januar',
    'Februar',
    'März',
    'April',
    'Mai',
    'Juni',
    'Juli',
    'August',
    'September',
    'Oktober',
    'November',
    'Dezember',
  ],
  fr: [
    'janvier',
    'février',
    'mars',
    'avril',
    'mai',
    'juin',
    'juillet',
    'août',
    'septembre',
    'octobre',
    'novembre',
    'décembre',
  ],
  es: [
    'enero',
    'febrero',
    'marzo',
    'abril',
    'mayo',
    'junio',
    'julio',
    'agosto',
    'septiembre',
    'octubre',
    'noviembre',
    'diciembre',
  ],
  it: [
    'gennaio',
    'febbraio',
    'marzo',
    'aprile',
    'maggio',
    'giugno',
    'luglio',
    'agosto',
    'settembre',
    'ottobre',
    'novembre',
    'dicembre',
  ],
  nl: [
    'januari',
    'februari',
    'maart',
    'april',
    'mei',
    'juni',
    'juli',
    'augustus',
    'september',
    'oktober',
    'november',
    'december',
  ],
};
export const DESCRIPTIONS: readonly string[] = [
  'Lip products of all types (solid and liquid lipsticks, balms)',
  'Deodorants and antiperspirants, sprays and sticks of 50 ml',
  'Hydroalcoholic products applied to recently shaved skin',
  'Fine fragrance; scent strips, 1.5 ml phials',
  'Body creams, oils, lotions of all types',
  'Mouthwash, toothpaste with 2 % mint flavour',
  'Hair treatments left in, gels of 30 - 45 minutes',
  'Products with body and hand exposure, rinsed off: bar soap, shower gel, shampoo',
  'Household cleaning agents, dilution 1:100',
  'Candles and reed diffusers, up to 25 % oil',
];
export const LAW: readonly string[] = [
  'This statement is made under Regulation (EC) No 1223/2009 as amended by Regulation (EU) 2023/1545.',
  'Classified under CLP 1272/2008. This document was made by machine and is valid without a signature.',
  'Quality system certified to ISO 9001:2015, certificate of the body no. 44 100.',
];
