import { wordsOfScripts } from "./book-words-of-scripts.ts";

/** The words that a book's apparatus needs, in its language. */
export interface BookWords {
  figure: string;
  table: string;
  page: string;
  above: string;
  below: string;
  notes: string;
  contents: string;
  questions: string;
  figures: string;
  tables: string;
  places: string;
  /** Pages outside the reading order. */
  companions: string;
  /** The list of page numbers. */
  pages: string;
  cover: string;
  addresses: string;
  backToText: string;
  newWindow: string;
  fileInside: string;
}

const english: BookWords = {
  figure: "Figure",
  table: "Table",
  page: "page",
  above: "above",
  below: "below",
  notes: "Notes",
  contents: "Contents",
  questions: "Questions",
  figures: "Figures",
  tables: "Tables",
  places: "Places",
  companions: "Further pages",
  pages: "Pages",
  cover: "Cover",
  addresses: "Addresses",
  backToText: "Back to the text",
  newWindow: "opens in a new window",
  fileInside:
    "This file goes with the book. An e-reader that does not open it keeps it inside the e-book all the same.",
};

const byLanguage: Record<string, BookWords> = {
  ...wordsOfScripts,
  en: english,
  de: {
    figure: "Abbildung",
    table: "Tabelle",
    page: "Seite",
    above: "oben",
    below: "unten",
    notes: "Anmerkungen",
    contents: "Inhalt",
    questions: "Fragen",
    figures: "Abbildungen",
    tables: "Tabellen",
    places: "Stellen",
    companions: "Weitere Seiten",
    pages: "Seiten",
    cover: "Umschlag",
    addresses: "Adressen",
    backToText: "Zurück zum Text",
    newWindow: "öffnet ein neues Fenster",
    fileInside: "Diese Datei gehört zum Buch. Auch wenn das Lesegerät sie nicht öffnet, liegt sie im E-Book.",
  },
  fr: {
    figure: "Figure",
    table: "Tableau",
    page: "page",
    above: "ci-dessus",
    below: "ci-dessous",
    notes: "Notes",
    contents: "Sommaire",
    questions: "Questions",
    figures: "Figures",
    tables: "Tableaux",
    places: "Passages",
    companions: "Autres pages",
    pages: "Pages",
    cover: "Couverture",
    addresses: "Adresses",
    backToText: "Retour au texte",
    newWindow: "s’ouvre dans une nouvelle fenêtre",
    fileInside:
      "Ce fichier accompagne le livre. Même si la liseuse ne l’ouvre pas, il se trouve dans le livre numérique.",
  },
  es: {
    figure: "Figura",
    table: "Tabla",
    page: "página",
    above: "más arriba",
    below: "más abajo",
    notes: "Notas",
    contents: "Índice",
    questions: "Preguntas",
    figures: "Figuras",
    tables: "Tablas",
    places: "Lugares",
    companions: "Otras páginas",
    pages: "Páginas",
    cover: "Cubierta",
    addresses: "Direcciones",
    backToText: "Volver al texto",
    newWindow: "se abre en una ventana nueva",
    fileInside:
      "Este archivo acompaña al libro. Aunque el lector no lo abra, está dentro del libro electrónico.",
  },
  nl: {
    figure: "Figuur",
    table: "Tabel",
    page: "pagina",
    above: "hierboven",
    below: "hieronder",
    notes: "Noten",
    contents: "Inhoud",
    questions: "Vragen",
    figures: "Figuren",
    tables: "Tabellen",
    places: "Plaatsen",
    companions: "Andere pagina’s",
    pages: "Pagina’s",
    cover: "Omslag",
    addresses: "Adressen",
    backToText: "Terug naar de tekst",
    newWindow: "opent in een nieuw venster",
    fileInside: "Dit bestand hoort bij het boek. Ook als de e-reader het niet opent, zit het in het e-boek.",
  },
  da: {
    figure: "Figur",
    table: "Tabel",
    page: "side",
    above: "ovenfor",
    below: "nedenfor",
    notes: "Noter",
    contents: "Indhold",
    questions: "Spørgsmål",
    figures: "Figurer",
    tables: "Tabeller",
    places: "Steder",
    companions: "Flere sider",
    pages: "Sider",
    cover: "Omslag",
    addresses: "Adresser",
    backToText: "Tilbage til teksten",
    newWindow: "åbner i et nyt vindue",
    fileInside: "Denne fil hører til bogen. Selv om e-læseren ikke åbner den, ligger den i e-bogen.",
  },
};

/** The words for a language given as a BCP 47 tag; English for one that has none here. */
export function bookWords(language: string): BookWords {
  const tag = language.toLowerCase();
  const [own] = tag.split("-") as [string];
  const isTraditional = own === "zh" && /-(hant|tw|hk|mo)\b/.test(tag);
  return byLanguage[isTraditional ? "zh-hant" : own] ?? english;
}
