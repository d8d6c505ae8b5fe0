import fc from 'fast-check';

/** How many nets the changes are of. */
export const NETS = 5;
/** Changes of nets one after the other, some in the same instant. */
export const changes = fc
  .array(fc.record({ wait: fc.nat({ max: 4 }), net: fc.nat({ max: NETS - 1 }), value: fc.nat({ max: 3 }) }), {
    maxLength: 200,
  })
  .map((steps) => {
    let time = 0;
    return steps.map(({ wait, net, value }) => {
      time += wait;
      return { time, net, value };
    });
  });
