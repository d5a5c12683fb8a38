// Prints what the front end says, file by file: texts of elements, and literals that a person could read. See `cargo xtask words`.

import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';

const SILENT = new Set(['className', 'd', 'viewBox', 'key', 'id', 'href', 'to', 'path', 'font', 'transform']);

function* sources(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory() && entry.name !== 'testing') yield* sources(path);
    else if (/\.tsx?$/.test(entry.name) && !/\.test\.|\.d\.ts$/.test(entry.name)) yield path;
  }
}

/** Whether an attribute or a call around a text makes it one for the machine. */
function silent(node) {
  for (let outer = node.parent; outer; outer = outer.parent) {
    if (ts.isJsxAttribute(outer)) return SILENT.has(outer.name.getText());
    if (ts.isImportDeclaration(outer) || ts.isLiteralTypeNode(outer)) return true;
    if (ts.isVariableDeclaration(outer)) return /^[A-Z_]+$/.test(outer.name.getText()) && looksLikeClasses(node);
    if (ts.isJsxElement(outer)) return false;
  }
  return false;
}

const looksLikeClasses = (node) => /(^|\s)[a-z]+-[[\w-]+/.test(node.text ?? '');

function said(path) {
  const file = ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.Latest, true);
  const found = [];
  const take = (text) => {
    const plain = text.replace(/\s+/g, ' ').trim();
    const letters = plain.match(/\p{L}/gu)?.length ?? 0;
    if (letters > 2 && (plain.includes(' ') || /^\p{Lu}/u.test(plain))) found.push(plain);
  };
  const walk = (node) => {
    if (ts.isJsxText(node)) take(node.text);
    else if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) {
      if (!silent(node)) take(node.text);
    } else if (ts.isTemplateExpression(node)) {
      if (!silent(node)) {
        const spans = node.templateSpans.map(({ expression, literal }) => `{${expression.getText()}}${literal.text}`);
        take(node.head.text + spans.join(''));
      }
    }
    ts.forEachChild(node, walk);
  };
  walk(file);
  return found;
}

for (const path of sources('src')) {
  const words = said(path);
  if (words.length) console.log(`\n## ${path.slice(4)}\n${words.join('\n')}`);
}
