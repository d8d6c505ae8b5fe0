import { writeFileSync } from 'node:fs';
import { lessonSchemaText } from '@/core/formats/lesson-json-schema';

writeFileSync('docs/lesson.schema.json', lessonSchemaText());
