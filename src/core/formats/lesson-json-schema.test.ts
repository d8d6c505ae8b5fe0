import { readFileSync } from 'node:fs';
import { lessonSchemaText } from './lesson-json-schema';

test('docs/lesson.schema.json is that of the lessons that are read: npm run schema', () => {
  const kept = JSON.parse(readFileSync('docs/lesson.schema.json', 'utf8'));
  expect(kept).toEqual(JSON.parse(lessonSchemaText()));
});

test('the schema says what must be there, and what a part is', () => {
  const schema = JSON.parse(lessonSchemaText());
  expect(schema.$schema).toContain('2020-12');
  expect(schema.required).toEqual(expect.arrayContaining(['format', 'version', 'id', 'title', 'sheets']));
  const part = schema.properties.sheets.items.properties.parts.items;
  expect(part.required).toEqual(expect.arrayContaining(['id', 'kind', 'at']));
});
