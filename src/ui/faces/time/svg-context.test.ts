import { SvgContext } from './svg-context';

const measure = { font: '', measureText: (text: string) => ({ width: 7 * text.length }) };

test('what is painted is written as shapes, texts safe from their own signs', () => {
  const g = new SvgContext(200, 100, measure as unknown as CanvasRenderingContext2D);
  g.fillStyle = '#fff';
  g.fillRect(0, 0, 200, 100);
  g.strokeStyle = '#222';
  g.lineWidth = 2;
  g.setLineDash([2, 3]);
  g.beginPath();
  g.moveTo(1, 2);
  g.lineTo(2.71999, 4);
  g.stroke();
  g.font = '600 14px "Some Face", serif';
  g.textAlign = 'right';
  g.fillText('A < "B" & C', 50, 20);
  g.save();
  g.beginPath();
  g.rect(0, 0, 10, 10);
  g.clip();
  g.beginPath();
  g.arc(5, 5, 3);
  g.fill();
  g.restore();
  expect(g.measureText('abc').width).toBe(21);
  const text = g.text();
  expect(text).toContain(
    '<path d="M1 2L2.72 4" fill="none" stroke="#222" stroke-width="2" stroke-dasharray="2 3"/>',
  );
  expect(text).toContain('text-anchor="end" font-weight="600" font-size="14"');
  expect(text).toContain('>A &lt; &quot;B&quot; &amp; C</text>');
  expect(text.match(/<g /g)).toHaveLength(1);
  expect(text.match(/<\/g>/g)).toHaveLength(1);
  expect(text).toMatch(/^<svg xmlns="http:\/\/www.w3.org\/2000\/svg" width="200" height="100"/);
});
