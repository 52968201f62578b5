/**
 * The words suppliers' papers use, in English, German, French, Spanish, Italian, Dutch and Polish. Patterns are written
 * without accents; a text is stripped of them (`plainText`) before it is held against one.
 */

/** A text in lower case without accents, one blank between words; as long as the text, letter for letter. */
export function plainText(text: string): string {
  return [...text]
    .map((letter) => {
      const bare = letter.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase().replace('ł', 'l');
      return bare.length === letter.length ? bare : letter.length === 1 ? (bare[0] ?? ' ') : letter;
    })
    .join('')
    .replace(/[\u00a0\u2007\u202f]/g, ' ')
    .replace(/[’´`]/g, "'");
}

/** One of some words, as part of a pattern. */
export const any = (...words: string[]) => `(?:${words.join('|')})`;

/** Product categories of the industry's standard. */
export const CATEGORY_WORD = any(
  'categories',
  'category',
  'categorie(?:en)?',
  'categorias?',
  'kategori(?:en?|a|i|[aą]|ach)?',
  'kat',
  'cat',
  'class(?:es|[ei])?',
  'klassen?',
  'clases?',
);

/** An edition of the industry's standard. */
export const EDITION_WORD = any(
  'amendments?',
  'amdt',
  'amendement',
  'editions?',
  'editie',
  'ausgabe',
  'anderung(?:sfassung)?',
  'erganzung',
  'enmienda',
  'edicion',
  'edizione',
  'emendamento',
  'wijziging',
  'poprawk(?:a|i|e)',
  'revision of the standards?',
);

/** Words for a maximum of nothing, of no end, and of no meaning. */
export const FORBIDDEN = new RegExp(
  `^${any(
    'not permitted',
    'prohibited',
    'not allowed',
    'do not use',
    'forbidden',
    'banned',
    'not to be used',
    'nicht (?:erlaubt|zulassig|zugelassen|gestattet)',
    'verboten',
    'interdit',
    'non autorise',
    'non permis',
    'prohibido',
    'no permitido',
    'no autorizado',
    'vietato',
    'non (?:consentito|permesso|ammesso)',
    'niet toegestaan',
    'verboden',
    'niedozwolon[eya]',
    'zabronion[eya]',
    '0(?:[.,]0+)?\\s*%?',
  )}$`,
);
export const FREE = new RegExp(
  `^${any(
    'no(?:t)? restrict(?:ion|ed|ions)',
    'unrestricted',
    'unlimited(?: use)?',
    'not limited',
    'no limit(?:ation)?s?',
    'without restriction',
    'keine (?:beschrankung|einschrankung)(?:en)?',
    'nicht beschrankt',
    'unbeschrankt',
    'uneingeschrankt',
    'pas de restriction',
    'sans restriction',
    '(?:non|pas|il)limitee?s?',
    '(?:non|pas) limitee?s?',
    'pas de limit\\w*',
    'sans limit\\w*',
    'kein\\w* (?:limit|grenz)\\w*',
    'sin limitacion(?:es)?',
    'senza limit\\w*',
    'niet beperkt',
    'geen limiet\\w*',
    'no maximum',
    'non restreint',
    'sin restriccion(?:es)?',
    'no restringido',
    'nessuna restrizione',
    'senza restrizioni',
    'non limitato',
    'geen beperking(?:en)?',
    'onbeperkt',
    'nicht limitiert',
    'illimite',
    'sin limite',
    'illimitato',
    'bez ograniczen',
    '100(?:[.,]0+)?\\s*%?',
  )}$`,
);
export const MEANINGLESS = /^(?:n\s?[./]?\s?a\.?|not applicable|entfallt|sans objet|no aplica|n\.?v\.?t\.?)$/;

export const ABSENT = new RegExp(
  `^${any(
    'n\\.?\\s?[dn]\\.?',
    'not (?:detected|present|found)',
    'none(?: detected)?',
    'absent',
    'nil',
    'free',
    '(?:nicht|kein) (?:nachweisbar|enthalten|vorhanden)',
    'non detect(?:e|ee|ed)',
    'absence',
    'no detectad[oa]',
    'ausente',
    'non rilevat[oa]',
    'assente',
    'niet (?:aantoonbaar|aanwezig|gedetecteerd)',
    'afwezig',
    '0(?:[.,]0+)?',
  )}$`,
);
export const TRACE = /^(?:traces?|tr\.?|spuren?|tracce|trazas|sporen|spoor)$/;

/** Heads of columns. */
export const CAS_HEAD = /\bcas\b/;
export const EC_HEAD = /\b(?:e\.?c\.?|einecs|eg|ce)\b[- ]*(?:n|$)|\beinecs\b/;
export const NAME_HEAD = new RegExp(
  any(
    'name',
    'substance',
    'ingredient',
    'allergen',
    'constituent',
    'component',
    'inci',
    'bezeichnung',
    'stoff',
    'inhaltsstoff',
    'bestandteil',
    'nom\\b',
    'composant',
    'constituant',
    'sustancia',
    'nombre',
    'componente',
    'sostanza',
    'nome',
    'stof\\b',
    'naam',
    'bestanddeel',
  ),
);
export const FOUND_HEAD = new RegExp(
  any(
    'found',
    'result',
    'finding',
    'measured',
    'actual',
    'typical',
    'ergebnis',
    'gefunden',
    'befund',
    'ist\\b',
    'resultat',
    'trouve',
    'mesure',
    'resultado',
    'hallado',
    'risultato',
    'trovato',
    'resultaat',
    'gevonden',
    'gemeten',
  ),
);
export const SPEC_HEAD = new RegExp(
  any('spe[cz]', 'range', 'soll\\b', 'spanne', 'bereich', 'plage', 'rango', 'intervallo', 'bereik'),
);
export const SHARE_HEAD = new RegExp(
  any(
    '%',
    'ppm',
    'mg/kg',
    'g/kg',
    '‰',
    'promille',
    '(?:mass|weight) fraction',
    'massenanteil',
    'fraction massique',
    'g/100',
    'conc',
    'konz',
    'content',
    'gehalt',
    'anteil',
    'share',
    'level',
    'amount',
    'teneur',
    'quantite',
    'contenido',
    'cantidad',
    'contenuto',
    'quantita',
    'gehalte',
    'aandeel',
    'w/w',
    'in (?:the )?(?:fragrance|material|oil|product|compound)',
  ),
);
/** A share of something else than the material. */
export const NOT_SHARE_HEAD =
  /at \d+\s?%|bei \d+\s?%|a \d+\s?%|threshold|schwelle|seuil|umbral|soglia|drempel|limit of|lod\b|loq\b|finished|fertig|fini\b|final|bar\b|leave|rinse|density|method|endproduct/;
/** The highest level of a category. */
export const LEVEL_HEAD = new RegExp(
  any(
    'max',
    'level',
    'limit',
    'hochst',
    'grenz',
    'niveau',
    'teneur',
    'nivel',
    'livello',
    'massim',
    'maxim',
    'gehalte',
    '%',
    'concentra',
    'konzentration',
    'usage',
    'use\\b',
    'dose',
    'dosis',
    'dosaggio',
    'maks',
    'poziom',
    'stezeni',
    'ppm',
    'mg\\s?/\\s?kg',
    'g\\s?/\\s?kg',
    '‰',
    'pro(?:mille|mil)\\b',
    'per mille?\\b',
  ),
);
/** A share in what was supplied; "product" may also mean the bar it ends in. */
export const IN_MATERIAL =
  /in (?:the )?(?:fragrance|perfume|material|oil|concentrate)|as supplied|im (?:parfum|ol|duft|konzentrat)|dans (?:le parfum|l'huile|la composition|le concentre)|en (?:el aceite|la fragancia|el concentrado)|nell'olio|nella fragranza|in (?:de|het) (?:olie|parfum)/;
export const IN_SOLD =
  /finished|in (?:the )?(?:end |final )?product|fertig|endprodukt|produit fini|producto (?:final|terminado)|prodotto finito|eindproduct|wyrobie/;
/** What soap is called where a paper goes by kinds of products and names no categories. */
export const SOAP_KIND =
  /\b(?:bar soaps?|soaps?|seifen?|feste? seife|savons?|jabon(?:es)?|sapon[ei]|zeep|mydl[oa])\b/;
export const OTHER_SOAP =
  /\b(?:dish|laundry|detergent|household|cleaner|spulmittel|waschmittel|lessive|vaisselle|detergente|bucato|afwas|wasmiddel|huishoud)/;
/** Words under which the level of a category may be or not be: read in two ways, or no level at all. */
export const OPEN_LEVEL =
  /^(?:n\s?\.?\s?r\.?|not supported|nicht unterstutzt|non supporte|no soportado|non supportato|niet ondersteund|on request|auf anfrage|sur demande|tbc|tba|to be confirmed|pending|\?+)$/;
/** A level that stands in a note of the paper. */
export const SEE_NOTE =
  /(?:see|siehe|voir|vease|ver|vedi|zie|patrz)\s+(?:also\s+)?(?:note|footnote|remark|fussnote|anmerkung|nota|noot|opmerking|uwaga)\s*\(?(\d{1,2})\)?/;
/** Numbering of an older edition beside the one in force. */
export const OLD_HEAD =
  /\bold\b|former|previous|until|\balte?\b|bisher|fruher|ancien|anterior|precedente|vorige|oud\b|48/;

/** A level written as a part of one: 0.0627 for 6.27 %. Said outright; a fraction of a distillation is none. */
export const FRACTION_WORD =
  /\b1(?:[.,]0+)?\s?=\s?100|\(1(?:[.,]0+)?\s?=|(?:mass|weight) fraction|as a (?:fraction|share) of (?:one|1)|share of (?:one|1)|anteil (?:von|an) (?:1|eins)|massenanteil|fraction massique|frazione (?:di massa|massica)|fraccion masica|massafractie|\bkg\/kg|(?<![a-z])g\/g\b/;

/** Papers of another kind. */
export const SDS_WORD =
  /safety data sheet|material safety|sicherheitsdatenblatt|fiche de donnees de securite|ficha de (?:datos de )?seguridad|scheda (?:di )?(?:dati di )?sicurezza|veiligheidsinformatieblad|section 2\s*[:.-]?\s*hazard|abschnitt 2\s*[:.-]?\s*mogliche gefahren/;
export const INVOICE_WORD =
  /\binvoice\b|\brechnung\b|\bfacture\b|\bfactura\b|\bfattura\b|\bfactuur\b|packing list|delivery note|lieferschein|order confirmation/;
