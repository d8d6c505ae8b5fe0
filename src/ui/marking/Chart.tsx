'use client';

import { BarChart, HeatmapChart } from 'echarts/charts';
import { GridComponent, VisualMapComponent } from 'echarts/components';
import { type EChartsCoreOption, type EChartsType, init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { type ReactNode, useEffect, useRef } from 'react';
import { FONTS, readPalette } from '@/ui/controls/palette';
import { fileName, saveFile } from '@/ui/controls/save-file';
import { useTheme } from '@/ui/controls/theme';

use([BarChart, HeatmapChart, GridComponent, VisualMapComponent, SVGRenderer]);

/** The theme's colours for a chart. */
export type ChartColours = Readonly<
  Record<'ink' | 'quiet' | 'hairline' | 'accent' | 'soft' | 'paper', string>
>;

interface Props {
  readonly title: string;
  readonly says: string;
  /** Pixels. */
  readonly height: number;
  readonly option: (colours: ChartColours) => EChartsCoreOption;
  /** Called with the number of the item that was pressed. */
  readonly onPress?: (item: number) => void;
  /** The same as a table. */
  readonly children: ReactNode;
}

/** A picture is drawn so many times larger than it is shown. */
const SHARP = 2;

/** A chart with the same numbers as a table beneath it, and saved as a picture. */
export function Chart({ title, says, height, option, onPress, children }: Props) {
  const place = useRef<HTMLDivElement>(null);
  const chart = useRef<EChartsType | null>(null);
  const press = useRef(onPress);
  press.current = onPress;
  // Another theme has other colours.
  useTheme();
  useEffect(() => {
    const one = init(place.current!, null, { renderer: 'svg' });
    chart.current = one;
    one.on('click', ({ dataIndex }) => press.current?.(dataIndex));
    const sizes = new ResizeObserver(() => one.resize());
    sizes.observe(place.current!);
    return () => {
      sizes.disconnect();
      one.dispose();
    };
  }, []);
  useEffect(() => {
    const { ink, quiet, hairline, accent, raised, 'accent-soft': soft } = readPalette();
    const colours = { ink, quiet, hairline, accent, soft, paper: raised };
    const usual = {
      animation: false,
      backgroundColor: raised,
      // A quote would end the attribute in which the picture has it.
      textStyle: { color: ink, fontFamily: FONTS.text.replaceAll('"', '') },
    };
    chart.current!.setOption({ ...usual, ...option(colours) }, true);
  });
  const svg = () => chart.current!.renderToSVGString();
  return (
    <figure className="min-w-0 rounded-xl border border-hairline bg-raised p-4" aria-label={title}>
      <figcaption className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <h2 className="font-bold">{title}</h2>
        <span className="text-sm text-quiet">{says}</span>
        <span className="ml-auto flex gap-1">
          <button
            type="button"
            className="button small"
            aria-label={`Save “${title}” as SVG`}
            onClick={() => saveFile(fileName(title, '.svg'), svg(), 'image/svg+xml')}
          >
            SVG
          </button>
          <button
            type="button"
            className="button small"
            aria-label={`Save “${title}” as PNG`}
            onClick={() =>
              void asPng(svg(), place.current!.clientWidth, height).then((png) =>
                saveFile(fileName(title, '.png'), png, 'image/png'),
              )
            }
          >
            PNG
          </button>
        </span>
      </figcaption>
      <div
        ref={place}
        style={{ height }}
        className={`mt-1 ${onPress ? 'cursor-pointer' : ''}`}
        aria-hidden="true"
      />
      <details className="text-sm">
        <summary className="cursor-pointer text-quiet">As a table</summary>
        <div className="mt-2 max-h-72 overflow-auto">{children}</div>
      </details>
    </figure>
  );
}

/** A picture as PNG, sharp on every screen. */
async function asPng(svg: string, width: number, height: number): Promise<Blob> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = width * SHARP;
  canvas.height = height * SHARP;
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error('the picture cannot be made'))),
      'image/png',
    ),
  );
}
