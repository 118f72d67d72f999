// Writes what is derived from the one description of a tree file: the JSON Schema that ships, and the field table in the docs.
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { ACT, sayRule, TREE_FILE } from '@ustle/core';

const SCHEMA = new URL('../packages/files/tree.schema.json', import.meta.url);
const DOC = new URL('../docs/tree-file.md', import.meta.url);
const [BEGIN, END] = ['<!-- fields: written by "npm run describe" -->', '<!-- end of fields -->'];

export const schemaText = () => `${JSON.stringify(TREE_FILE, null, 2)}\n`;

const plain = (schema) => schema.anyOf?.[0] ?? schema;
const escaped = (text) => text.replaceAll('|', '\\|');

/** One line a field: its place, what it holds, what it means; parts within parts below it. */
function rowsOf(schema, place) {
  const required = new Set(schema.required ?? []);
  return Object.entries(schema.properties).flatMap(([key, of]) => {
    const field = plain(of);
    const at = place ? `${place}.${key}` : key;
    const holds = field.type === 'array' ? 'list' : field.oneOf || field.type === 'object' ? 'object' : sayRule(field);
    const may = [...(required.has(key) ? [] : ['may be left out']), ...(of.anyOf ? ['may be null'] : [])].join(', ');
    const row = `| \`${at}\` | ${escaped(holds)}${may ? `; ${may}` : ''} | ${escaped(of.description ?? field.description ?? '')} |`;
    return [row, ...below(field, at)];
  });
}

function below(field, at) {
  if (field.type === 'array') return below(field.items, `${at}[]`);
  if (field.oneOf) return []; // told by kind, further down
  return field.properties ? rowsOf(field, at) : [];
}

const table = (head, rows) => ['', `| ${head} | holds | meaning |`, '| --- | --- | --- |', ...rows, ''].join('\n');

/** One line for each kind of a union, with the fields of its own. */
const kindsOf = (union, tag) => {
  const common = Object.keys(union.oneOf[0].properties).filter((key) => union.oneOf.every((shape) => key in shape.properties));
  return union.oneOf.map((shape) => {
    const own = Object.keys(shape.properties)
      .filter((key) => !common.includes(key))
      .map((key) => `\`${key}\`${shape.required.includes(key) ? '' : '?'}`);
    return `| \`${shape.properties[tag].const}\` | ${own.join(', ') || 'nothing more'} |`;
  });
};

const kinds = (title, union, tag) => [`\n${title}\n`, `| \`${tag}\` | fields (? may be left out) |`, '| --- | --- |', ...kindsOf(union, tag), ''].join('\n');

const fieldsText = () => {
  const { plan, record, ...own } = TREE_FILE.properties;
  return [
    BEGIN,
    table('field', rowsOf({ ...TREE_FILE, properties: own }, '')),
    table('field', rowsOf(plan, 'plan')),
    kinds('**A decision**, by its fate, besides `branch`, `why` and `session`', plan.properties.decisions.items, 'act'),
    kinds('**A line of the record**, by its kind, besides `id`, `on`, `text`, `corrects` and `again`', record.items, 'kind'),
    kinds('**An act**, by its kind, besides `id` and `on`', ACT, 'kind'),
    END,
  ].join('\n');
};

/** The document with its field table as it is now. */
export function docText(before = readFileSync(DOC, 'utf8')) {
  const [head, rest] = before.split(BEGIN);
  return `${head}${fieldsText()}${rest.split(END)[1]}`;
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  writeFileSync(SCHEMA, schemaText());
  writeFileSync(DOC, docText());
  console.log('tree.schema.json and docs/tree-file.md are as described.');
}
