import { families, type Rig, readHullNumber, resizeRig } from "../rig/index.ts";

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

/** A boat as the list has it, ready to be added. */
export interface StockBoat {
  readonly hull: string;
  /** What the yard calls it; empty where the list does not say. */
  readonly stock: string;
  readonly color: string;
  readonly name: string;
  readonly template: string;
  readonly maker: string | null;
  readonly model: string | null;
  readonly modelYear: number | null;
  readonly loaM: number | null;
  readonly beamM: number | null;
}

export interface StockRow {
  /** Line in the file, the headings being line 1. */
  readonly line: number;
  readonly state: "new" | "known" | "wrong";
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
}

/**
 * What would come of each row of a stock list? A row is new, known already (by hull number, here or earlier in the list), or
 * wrong with what to mend. An odd hull number is a doubt, not a fault. Nothing is stored by this.
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
  const template = findTemplate(cell("model"), cell("family"), aids);
  if (template === null) {
    const known = aids.templates.map(({ model }) => model).slice(0, 3);
    say(
      "model",
      `No template fits "${cell("model") || cell("family")}"; templates are ${known.join(", ")} … Save one, or give the kind of boat`,
    );
  }
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
  const before = aids.firstLine.get(read.number);
  if (read.number !== "" && before === undefined) aids.firstLine.set(read.number, line);
  if (before !== undefined) doubts.push(`The same hull number stands on line ${before}`);
  if (problems.length > 0 || template === null)
    return { line, state: "wrong", hull: read.number, problems, doubts, boat: null };
  const boat: StockBoat = {
    hull: read.number,
    stock: cell("stock"),
    color: cell("color"),
    name: cell("name") || cell("model") || template.model,
    template: template.id,
    maker: cell("maker") || null,
    model: cell("model") || null,
    modelYear: modelYear ?? read.modelYear,
    loaM,
    beamM,
  };
  const isKnown = aids.known.has(read.number) || before !== undefined;
  return { line, state: isKnown ? "known" : "new", hull: read.number, problems, doubts, boat };
}

function findTemplate(model: string, family: string, { byModel, byFamily }: RowAids): StockTemplate | null {
  const exact = byModel.get(plain(model));
  if (exact !== undefined) return exact;
  const asked = plain(family).replaceAll(" ", "-");
  const named = families.find(
    (each) => each === asked || asked.includes(each) || (asked !== "" && each.startsWith(asked)),
  );
  return named === undefined ? null : (byFamily.get(named) ?? null);
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

/** The rig of a stock boat: its template's, under its own name and year, at its own length and beam. */
export function createStockRig(boat: StockBoat, template: Rig): Rig {
  return {
    ...resizeRig(template, boat.loaM ?? template.loaM, boat.beamM ?? template.beamM),
    maker: boat.maker ?? template.maker,
    model: boat.model ?? template.model,
    modelYear: boat.modelYear ?? template.modelYear,
  };
}
