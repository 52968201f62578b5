/** Words of letters to suppliers, in the six languages that are known well. */
export const LETTER_LANGUAGES = ['en', 'de', 'fr', 'es', 'it', 'nl'] as const;
export type LetterLanguage = (typeof LETTER_LANGUAGES)[number];

interface Words {
  subject: (material: string) => string;
  greeting: (supplier: string | null) => string;
  opening: (material: string) => string;
  certificate: string;
  renew: (number: string, issuedOn: string) => string;
  /** What is asked is quoted in English. */
  condition: (asks: string) => string;
  lot: (code: string, why: string) => string;
  closing: string;
  regards: string;
}

export const LETTER_WORDS: Readonly<Record<LetterLanguage, Words>> = {
  en: {
    subject: (material) => `Papers for ${material}`,
    greeting: (supplier) => (supplier ? `Dear ${supplier},` : 'Dear Sir or Madam,'),
    opening: (material) =>
      `we use your ${material} in bar soap that we sell, and need the following for our product files:`,
    certificate:
      'a certificate of conformity to the current safe-use standards, with the highest use in rinse-off soap (category 9), and the allergen declaration that goes with it',
    renew: (number, issuedOn) =>
      `your paper ${number} of ${issuedOn} in its current edition, or your word that it still holds`,
    condition: (asks) => `a paper that shows: ${asks}`,
    lot: (code, why) =>
      `your word on lot ${code}, which we hold back (${why}): whether others report the same, and whether you replace it`,
    closing: 'Please send it as a PDF. Thank you.',
    regards: 'Kind regards',
  },
  de: {
    subject: (material) => `Unterlagen zu ${material}`,
    greeting: (supplier) => (supplier ? `Guten Tag, ${supplier},` : 'Sehr geehrte Damen und Herren,'),
    opening: (material) =>
      `wir verwenden Ihr Produkt ${material} in Stückseifen, die wir verkaufen, und brauchen für unsere Produktunterlagen:`,
    certificate:
      'ein Konformitätszertifikat nach den geltenden Standards für die sichere Verwendung, mit der Höchstmenge in abzuspülender Seife (Kategorie 9), und die zugehörige Allergenerklärung',
    renew: (number, issuedOn) =>
      `Ihre Unterlage ${number} vom ${issuedOn} in der aktuellen Fassung oder die Bestätigung, dass sie weiterhin gilt`,
    condition: (asks) => `einen Nachweis zu: ${asks}`,
    lot: (code, why) =>
      `eine Auskunft zur Charge ${code}, die wir zurückhalten (${why}): ob andere dasselbe melden und ob Sie sie ersetzen`,
    closing: 'Bitte senden Sie es uns als PDF. Vielen Dank.',
    regards: 'Mit freundlichen Grüßen',
  },
  fr: {
    subject: (material) => `Documents pour ${material}`,
    greeting: (supplier) => (supplier ? `Bonjour ${supplier},` : 'Madame, Monsieur,'),
    opening: (material) =>
      `nous utilisons votre produit ${material} dans des savons que nous vendons, et il nous faut pour nos dossiers :`,
    certificate:
      "un certificat de conformité aux normes d'utilisation sûre en vigueur, avec la teneur maximale en savon à rincer (catégorie 9), et la déclaration d'allergènes correspondante",
    renew: (number, issuedOn) =>
      `votre document ${number} du ${issuedOn} dans sa version en vigueur, ou la confirmation qu'il reste valable`,
    condition: (asks) => `un document qui montre : ${asks}`,
    lot: (code, why) =>
      `votre avis sur le lot ${code}, que nous retenons (${why}) : si d'autres signalent la même chose et si vous le remplacez`,
    closing: 'Merci de nous les envoyer en PDF.',
    regards: 'Cordialement',
  },
  es: {
    subject: (material) => `Documentos de ${material}`,
    greeting: (supplier) => (supplier ? `Hola, ${supplier}:` : 'Estimados señores:'),
    opening: (material) =>
      `usamos su producto ${material} en jabones en pastilla que vendemos y necesitamos para nuestros expedientes:`,
    certificate:
      'un certificado de conformidad con las normas vigentes de uso seguro, con el máximo en jabón que se aclara (categoría 9), y la declaración de alérgenos correspondiente',
    renew: (number, issuedOn) =>
      `su documento ${number} del ${issuedOn} en su edición vigente, o la confirmación de que sigue siendo válido`,
    condition: (asks) => `un documento que muestre: ${asks}`,
    lot: (code, why) =>
      `su parecer sobre el lote ${code}, que retenemos (${why}): si otros comunican lo mismo y si lo reponen`,
    closing: 'Les rogamos que lo envíen en PDF. Gracias.',
    regards: 'Un cordial saludo',
  },
  it: {
    subject: (material) => `Documenti per ${material}`,
    greeting: (supplier) => (supplier ? `Buongiorno ${supplier},` : 'Gentili Signori,'),
    opening: (material) =>
      `usiamo il vostro prodotto ${material} in saponi solidi che vendiamo e ci serve per i nostri fascicoli:`,
    certificate:
      "un certificato di conformità agli standard vigenti per l'uso sicuro, con il massimo nel sapone da risciacquo (categoria 9), e la dichiarazione degli allergeni relativa",
    renew: (number, issuedOn) =>
      `il vostro documento ${number} del ${issuedOn} nell'edizione vigente, o la conferma che è ancora valido`,
    condition: (asks) => `un documento che mostri: ${asks}`,
    lot: (code, why) =>
      `il vostro parere sul lotto ${code}, che tratteniamo (${why}): se altri segnalano lo stesso e se lo sostituite`,
    closing: 'Vi preghiamo di inviarlo in PDF. Grazie.',
    regards: 'Cordiali saluti',
  },
  nl: {
    subject: (material) => `Documenten voor ${material}`,
    greeting: (supplier) => (supplier ? `Beste ${supplier},` : 'Geachte heer of mevrouw,'),
    opening: (material) =>
      `wij gebruiken uw product ${material} in zeep die wij verkopen, en hebben voor onze productdossiers nodig:`,
    certificate:
      'een conformiteitscertificaat volgens de geldende normen voor veilig gebruik, met het maximum in af te spoelen zeep (categorie 9), en de bijbehorende allergenenverklaring',
    renew: (number, issuedOn) =>
      `uw document ${number} van ${issuedOn} in de huidige uitgave, of de bevestiging dat het nog geldt`,
    condition: (asks) => `een document waaruit blijkt: ${asks}`,
    lot: (code, why) =>
      `uw oordeel over partij ${code}, die wij vasthouden (${why}): of anderen hetzelfde melden en of u die vervangt`,
    closing: 'Stuur het ons graag als pdf. Dank u wel.',
    regards: 'Met vriendelijke groet',
  },
};
