import { existsSync, readdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import ts from "typescript-6";

const sources = new Map<string, ts.SourceFile>();
const parse = (file: string): ts.SourceFile => {
  const known = sources.get(file);
  if (known !== undefined) return known;
  const read = ts.createSourceFile(file, readFileSync(file, "utf8"), ts.ScriptTarget.Latest, true);
  sources.set(file, read);
  return read;
};

function walk(node: ts.Node, visit: (node: ts.Node) => void): void {
  visit(node);
  ts.forEachChild(node, (child) => walk(child, visit));
}

/** The files of this repository that those in `folder` come to by their imports, themselves among them. */
export function listReached(folder: string): string[] {
  const reached = new Set<string>();
  const waiting = readdirSync(folder)
    .filter((name) => /\.tsx?$/.test(name) && !name.includes(".test."))
    .map((name) => join(folder, name));
  for (let file = waiting.pop(); file !== undefined; file = waiting.pop()) {
    if (reached.has(file)) continue;
    reached.add(file);
    for (const found of readFileSync(file, "utf8").matchAll(/(?:from|import)\s*\(?\s*"(\.[^"]+)"/g)) {
      const path = join(dirname(file), found[1]!);
      if (/\.tsx?$/.test(path) && existsSync(path)) waiting.push(path);
    }
  }
  return [...reached].sort();
}

/** The strings an expression may come to, as they stand in the code. */
function literalsOf(node: ts.Expression | undefined): string[] {
  if (node === undefined) return [];
  if (ts.isStringLiteralLike(node)) return [node.text];
  if (ts.isParenthesizedExpression(node)) return literalsOf(node.expression);
  if (ts.isConditionalExpression(node)) return [...literalsOf(node.whenTrue), ...literalsOf(node.whenFalse)];
  return [];
}

const tellers: ReadonlySet<string> = new Set(["tell", "told", "sayPhrase", "tellPhrase", "blame"]);

/** What is handed to `tell` and its like as it stands in the code of a file. */
export function listToldPhrases(file: string): string[] {
  const told: string[] = [];
  walk(parse(file), (node) => {
    if (ts.isPropertyAssignment(node) && node.name.getText() === "phrase") told.push(...literalsOf(node.initializer));
    if (!ts.isCallExpression(node)) return;
    const name = ts.isPropertyAccessExpression(node.expression) ? node.expression.name.text : node.expression.getText();
    // Which argument is the phrase differs; one with a letter in it is.
    if (tellers.has(name)) told.push(...node.arguments.slice(0, 3).flatMap(literalsOf));
  });
  return [...new Set(told)].filter((text) => /\p{L}{2}/u.test(text));
}

/** Words that stand bare in what a file draws: in no `tell`, so in English for everybody. */
export function listBareWords(file: string): string[] {
  const bare: string[] = [];
  const shown: ReadonlySet<string> = new Set([
    "label",
    "aria-label",
    "placeholder",
    "title",
    "says",
    "alt",
    "why",
    "legend",
  ]);
  walk(parse(file), (node) => {
    if (ts.isJsxText(node) && /\p{L}{2}/u.test(node.text)) bare.push(node.text.trim());
    if (!ts.isJsxAttribute(node) || !shown.has(node.name.getText()) || node.initializer === undefined) return;
    const given = ts.isJsxExpression(node.initializer)
      ? node.initializer.expression
      : (node.initializer as ts.Expression);
    if (given !== undefined && ts.isTemplateExpression(given)) {
      const words = [given.head.text, ...given.templateSpans.map(({ literal }) => literal.text)].join("");
      if (/\p{L}{3}/u.test(words)) bare.push(given.getText());
    } else bare.push(...literalsOf(given).filter((text) => /\p{L}{2}/u.test(text)));
  });
  return bare;
}

/** The sentences and names in a table of a file, by the table's name; ids and keys are neither. */
export function listTableWords(file: string, table: string): string[] {
  const words: string[] = [];
  walk(parse(file), (node) => {
    if (!ts.isVariableDeclaration(node) || node.name.getText() !== table || node.initializer === undefined) return;
    walk(node.initializer, (inner) => {
      if (ts.isStringLiteralLike(inner) && !ts.isPropertyName(inner.parent)) words.push(inner.text);
    });
  });
  const said = words.filter((text) => /^\p{Lu}| /u.test(text));
  if (said.length === 0) throw new Error(`listTableWords: expected words in ${table} of ${file}, got none`);
  return said;
}
