import { writeFileSync } from 'node:fs';
import type { Lesson } from '../src/core/circuit/lesson';
import { type End, emptySheet, isPinEnd, type Part, type Wire } from '../src/core/circuit/sheet';
import { writeLesson } from '../src/core/formats/write-lesson';
import { interlock } from '../src/core/testing/sketch';

/* Writes a lesson of about so many parts: the drive interlock side by side. `scripts/run-ts scripts/big-lesson.ts 5000 FILE` */

const [, , count = '1000', file = 'big.manege.json'] = process.argv;
const one = interlock();
const copies = Math.ceil(Number(count) / one.sheet.parts.size);
const across = Math.ceil(Math.sqrt(copies * 0.8));
const parts = new Map<string, Part>();
const wires = new Map<string, Wire>();
for (let i = 0; i < copies; i++) {
  const named = (id: string) => `${id}x${i}`;
  const shift = (p: { x: number; y: number }) => ({
    x: p.x + 44 * (i % across),
    y: p.y + 28 * Math.floor(i / across),
  });
  const end = (e: End): End =>
    isPinEnd(e) ? { ...e, part: named(e.part) } : { wire: named(e.wire), at: shift(e.at) };
  for (const part of one.sheet.parts.values()) {
    const label = part.label && `${part.label} ${i}`;
    parts.set(named(part.id), { ...part, id: named(part.id), at: shift(part.at), label, rank: parts.size });
  }
  for (const wire of one.sheet.wires.values())
    wires.set(named(wire.id), {
      ...wire,
      id: named(wire.id),
      from: end(wire.from),
      to: end(wire.to),
      course: wire.course.map(shift),
    });
}
const sheet = { ...emptySheet('sheet1', 'Many'), parts, wires };
const lesson: Lesson = { ...one.lesson, title: `${parts.size} parts`, sheets: [sheet] };
writeFileSync(file, writeLesson(lesson));
