import { createRig, families, type Rig, readHullNumber, resizeRig } from "../rig/index.ts";

/** What a stock list may say of a boat. */
export const stockFields = [
  "hull",
  "stock",
  "name",
  "color",
  "maker",
  "model",
  "modelYear",
  "family",
  "length",
  "beam",
] as const;
export type StockField = (typeof stockFields)[number];

/** Which column each field is read from, by number from 0; null where the list does not have it. */
export type StockMapping = Readonly<Record<StockField, number | null>>;

export const lengthUnits = ["m", "ft", "cm", "in"] as const;
export type LengthUnit = (typeof lengthUnits)[number];
const metresIn: Record<LengthUnit, number> = { m: 1, ft: 0.3048, cm: 0.01, in: 0.0254 };

export interface StockTemplate {
  readonly id: string;
  readonly model: string;
  readonly family: Rig["family"];
  readonly loaM: number;
  readonly beamM: number;
}

/** What a boat's sheet begins as: a template, or a plain boat of a kind. */
export type StockStart = { readonly template: string } | { readonly family: Rig["family"] };

/** A boat as the list has it, ready to be added. */
export interface StockBoat {
  readonly hull: string;
  /** What the yard calls it; empty where the list does not say. */
  readonly stock: string;
  readonly color: string;
  readonly name: string;
  readonly start: StockStart;
  readonly maker: string | null;
  readonly model: string | null;
  readonly modelYear: number | null;
  readonly loaM: number | null;
  readonly beamM: number | null;
}

export interface StockRow {
  /** Line in the file, the headings being line 1. */
  readonly line: number;
  /** "choose": all of it can be read, and no template fits until somebody says what it starts from. */
  readonly state: "new" | "known" | "wrong" | "choose";
  /** What the list calls such a boat, plain: all rows that say the same start from the same. */
  readonly kind: string;
  /** Templates nearest to it by kind and length, the nearest first; empty where one fits by itself. */
  readonly nearest: readonly string[];
  /** As the list has it, for finding the row again. */
  readonly hull: string;
  /** What stands in the way, with its column; empty unless the row is wrong. */
  readonly problems: readonly { readonly field: StockField; readonly text: string }[];
  /** What looks odd and is taken all the same. */
  readonly doubts: readonly string[];
  readonly boat: StockBoat | null;
}

const aliases: Record<StockField, readonly RegExp[]> = {
  hull: [/^hin$/, /hull.*(id|no|num)/, /^hull$/, /serial/],
  stock: [/stock/, /^unit ?(no|num|number|id)?$/, /^inventory ?(no|num|number)/],
  color: [/colou?r/],
  name: [/^name$/, /boat ?name/, /title/, /descr/],
  maker: [/^make/, /builder/, /manufact/],
  model: [/^model$/, /model ?(name|code)/],
  modelYear: [/model ?year/, /^year$/, /^my$/],
  family: [/family/, /kind/, /type/, /class/, /categor/],
  length: [/length/, /^loa/, /^len/],
  beam: [/beam/, /width/],
};

/** Which column is probably which field, by its heading; each column serves one field. */
export function guessMapping(headings: readonly string[]): StockMapping {
  const taken = new Set<number>();
  const plain = headings.map((heading) =>
    heading
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, " ")
      .trim(),
  );
  const find = (field: StockField): number | null => {
    for (const pattern of aliases[field]) {
      const at = plain.findIndex((heading, i) => !taken.has(i) && pattern.test(heading));
      if (at < 0) continue;
      taken.add(at);
      return at;
    }
    return null;
  };
  // The narrow ones first, so that "model year" is not taken for the model.
  const order: StockField[] = [
    "hull",
    "stock",
    "color",
    "modelYear",
    "model",
    "maker",
    "family",
    "length",
    "beam",
    "name",
  ];
  const found = new Map(order.map((field) => [field, find(field)]));
  return Object.fromEntries(stockFields.map((field) => [field, found.get(field) ?? null])) as StockMapping;
}

export interface StockAids {
  readonly mapping: StockMapping;
  readonly unit: LengthUnit;
  readonly templates: readonly StockTemplate[];
  /** Hull numbers the store has, as `readHullNumber` writes them. */
  readonly known: ReadonlySet<string>;
  readonly thisYear: number;
  /** What somebody chose for boats of one `kind`. */
  readonly starts: Readonly<Record<string, StockStart>>;
  /** What somebody chose for all that no template fits. */
  readonly startOfRest: StockStart | null;
}

/**
 * What would come of each row of a stock list? A row is new, known already (by hull number), wrong with what to mend, or to be chosen
 * for. An odd hull number is a doubt, not a fault; one that is too short to be one, or that stands on an earlier line, is a fault.
 * Nothing is stored by this.
 */
export function readStock(rows: readonly (readonly string[])[], aids: StockAids): StockRow[] {
  const byModel = new Map(aids.templates.map((template) => [plain(template.model), template]));
  const byFamily = new Map<string, StockTemplate>();
  for (const template of aids.templates) if (!byFamily.has(template.family)) byFamily.set(template.family, template);
  const firstLine = new Map<string, number>();
  return rows.map((row, i) => readRow(row, i + 2, { ...aids, byModel, byFamily, firstLine }));
}

interface RowAids extends StockAids {
  readonly byModel: ReadonlyMap<string, StockTemplate>;
  readonly byFamily: ReadonlyMap<string, StockTemplate>;
  readonly firstLine: Map<string, number>;
}

const plain = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, " ")
    .trim();
/** The longest text of each. */
const textFields = [
  ["name", 60],
  ["maker", 60],
  ["model", 60],
  ["stock", 30],
  ["color", 40],
] as const;

function readRow(row: readonly string[], line: number, aids: RowAids): StockRow {
  const problems: { field: StockField; text: string }[] = [];
  const cell = (field: StockField) => {
    const at = aids.mapping[field];
    return at === null ? "" : (row[at] ?? "").trim();
  };
  const say = (field: StockField, text: string) => problems.push({ field, text });
  const read = readHullNumber(cell("hull"), aids.thisYear);
  if (read.number === "") say("hull", "There is no hull number; without it the boat cannot be told from another");
  else if (read.number.length > 20) say("hull", "This is too long for a hull number");
  else if (read.number.length < leastHullLength)
    say("hull", `It has ${read.number.length} characters; a hull number has 12, or 14 with its country`);
  const before = aids.firstLine.get(read.number);
  if (read.number !== "" && before === undefined) aids.firstLine.set(read.number, line);
  if (before !== undefined) say("hull", `The same hull number stands on line ${before}`);
  const number = (field: "length" | "beam", least: number, most: number): number | null => {
    const text = cell(field);
    if (text === "") return null;
    const value = readLength(text, aids.unit);
    if (value === null) say(field, `"${text}" is no length`);
    else if (value < least || value > most)
      say(field, `${value.toFixed(2)} m is out of range (${least} to ${most} m); is the list in another unit?`);
    return value === null ? null : Math.round(value * 100) / 100;
  };
  const loaM = number("length", 3, 20);
  const beamM = number("beam", 1, 6);
  const modelYear = readYear(cell("modelYear"), aids.thisYear, say);
  for (const [field, most] of textFields) {
    if (cell(field).length > most) say(field, `It is longer than ${most} characters`);
    if (/[<>]/.test(cell(field))) say(field, "It holds markup");
  }
  const doubts = read.number === "" ? [] : [...read.doubts];
  if (modelYear !== null && read.modelYear !== null && read.modelYear !== modelYear)
    doubts.push(`The hull number says model year ${read.modelYear}, the list ${modelYear}`);
  const kind = plain(cell("model")) || plain(cell("family"));
  const fitting = findStart(cell("model"), cell("family"), aids);
  const start = aids.starts[kind] ?? fitting ?? aids.startOfRest;
  const nearest = fitting === null ? listNearest(cell("family"), loaM, aids.templates) : [];
  const facts = { line, kind, nearest, hull: read.number, problems, doubts };
  if (problems.length > 0) return { ...facts, state: "wrong", boat: null };
  const isKnown = aids.known.has(read.number);
  if (start === null) return { ...facts, state: isKnown ? "known" : "choose", boat: null };
  const boat: StockBoat = {
    hull: read.number,
    stock: cell("stock"),
    color: cell("color"),
    name: cell("name") || cell("model") || nameOf(start, aids),
    start,
    maker: cell("maker") || null,
    model: cell("model") || null,
    modelYear: modelYear ?? read.modelYear,
    loaM,
    beamM,
  };
  return { ...facts, state: isKnown ? "known" : "new", boat };
}

/** The shortest that is read as a hull number: older ones and those of small makers have fewer characters than 12. */
const leastHullLength = 8;
const mostNearest = 3;

const nameOf = (start: StockStart, { templates }: StockAids): string =>
  "template" in start
    ? (templates.find(({ id }) => id === start.template)?.model ?? start.template)
    : start.family.replaceAll("-", " ");

/** How lists write each kind of boat, in either spelling; the narrow ones first. */
const familyWords: readonly (readonly [Rig["family"], RegExp])[] = [
  ["centre-console", /\b(centre|center|ctr) console|^cc$/],
  ["side-console", /\bside console/],
  ["pontoon", /pontoon|tritoon|\btri toon/],
  ["tow-sport", /\btow ?sports?|\bwake|\bski boat|\bsurf boat/],
  ["bowrider", /bow ?rider/],
  ["cuddy", /cuddy|walk ?around|day cruiser/],
  ["runabout", /run ?about|\bsport boat/],
];

const readFamily = (text: string): Rig["family"] | null => {
  const asked = plain(text);
  const spelled = familyWords.find(([, pattern]) => pattern.test(asked))?.[0];
  // What begins as a kind does is taken for it: "bowr", "pont".
  return spelled ?? families.find((each) => asked.length > 3 && plain(each).startsWith(asked)) ?? null;
};

/** A template of the same kind goes before all others; then the one nearest in length. */
function listNearest(family: string, loaM: number | null, templates: readonly StockTemplate[]): string[] {
  const kind = readFamily(family);
  const far = (template: StockTemplate) =>
    (template.family === kind ? 0 : 100) + (loaM === null ? 0 : Math.abs(template.loaM - loaM));
  return templates
    .toSorted((a, b) => far(a) - far(b))
    .slice(0, mostNearest)
    .map(({ id }) => id);
}

/** The template of its model, else the first of its kind; a kind without a template is a plain boat. Null where neither is known. */
function findStart(model: string, family: string, { byModel, byFamily }: RowAids): StockStart | null {
  const exact = byModel.get(plain(model));
  if (exact !== undefined) return { template: exact.id };
  const named = readFamily(family);
  if (named === null) return null;
  const template = byFamily.get(named);
  return template === undefined ? { family: named } : { template: template.id };
}

/** Metres of "6.4", "6,4", "21'", "21 ft 6 in", "21' 6\"", "640 cm"; null if it is none. A unit written wins over `unit`. */
export function readLength(text: string, unit: LengthUnit): number | null {
  const tidy = text.toLowerCase().replace(",", ".").replaceAll("’", "'").replaceAll("”", '"').trim();
  const feet = /^(\d+(?:\.\d+)?)\s*(?:ft|feet|')\s*(?:(\d+(?:\.\d+)?)\s*(?:in|inches|")?)?$/.exec(tidy);
  if (feet !== null) return Number(feet[1]) * metresIn.ft + Number(feet[2] ?? 0) * metresIn.in;
  const plainNumber = /^(\d+(?:\.\d+)?)\s*(m|cm|in|")?$/.exec(tidy);
  if (plainNumber === null) return null;
  const written = plainNumber[2] === '"' ? "in" : (plainNumber[2] as LengthUnit | undefined);
  return Number(plainNumber[1]) * metresIn[written ?? unit];
}

function readYear(text: string, thisYear: number, say: (field: StockField, text: string) => void): number | null {
  if (text === "") return null;
  const year = /^\d{4}$/.test(text) ? Number(text) : Number.NaN;
  if (year >= 1950 && year <= thisYear + 2) return year;
  say("modelYear", `"${text}" is no model year between 1950 and ${thisYear + 2}`);
  return null;
}

/** A list as it may look, of boats of these templates, in this unit: what it says is read without a fault. */
export function writeSampleStock(templates: readonly StockTemplate[], unit: LengthUnit, thisYear: number): string[][] {
  const year = String(thisYear % 10);
  const rows = templates
    .slice(0, 3)
    .map(({ model, family, loaM, beamM }, i) => [
      `QXR0000${i + 1}A${year}${String(thisYear % 100).padStart(2, "0")}`,
      `S-10${i + 1}`,
      model,
      ["white", "white and navy", "sand"][i]!,
      "Sample Boatworks",
      model,
      String(thisYear),
      family,
      ...[loaM, beamM].map((metres) => (metres / metresIn[unit]).toFixed(2)),
    ]);
  const headings = ["Hull number", "Stock number", "Name", "Color", "Maker", "Model", "Model year", "Kind of boat"];
  return [[...headings, "Length", "Beam"], ...rows];
}

/** Of a plain boat whose list says neither: a usual length, and a beam in proportion. */
const plainLoaM = 6;
const beamShare = 0.38;

/** The rig of a stock boat: its template's, under its own name and year, at its own length and beam; or a plain one of its kind. */
export function createStockRig(boat: StockBoat, template: Rig | null, thisYear: number): Rig {
  if ("family" in boat.start) {
    const loaM = boat.loaM ?? plainLoaM;
    return createRig({
      family: boat.start.family,
      maker: boat.maker ?? "Maker not given",
      model: boat.model ?? boat.name,
      modelYear: boat.modelYear ?? thisYear,
      loaM,
      beamM: boat.beamM ?? Math.round(loaM * beamShare * 100) / 100,
      hasTrailer: false,
    });
  }
  if (template === null) throw new Error(`createStockRig: expected the template "${boat.start.template}", got none`);
  return {
    ...resizeRig(template, boat.loaM ?? template.loaM, boat.beamM ?? template.beamM),
    maker: boat.maker ?? template.maker,
    model: boat.model ?? template.model,
    modelYear: boat.modelYear ?? template.modelYear,
  };
}
