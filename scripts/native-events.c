/* A timed run of a circuit over an event wheel: the same work as the engine does, for the benchmark. Reads `circuit` from its first
   argument: counts, gates, readings, vectors, as 32-bit words; prints the time in ms of the run, and its events. */
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <time.h>

typedef struct {
  uint8_t op, inputs, value, target;
  uint16_t rise, fall;
  uint8_t touched;
  int32_t due, from, to;
} gate;
typedef struct { int32_t *items, length, room; } list;


int main(int argc, char **argv) {
  FILE *file = fopen(argv[1], "rb");
  int32_t head[6];
  if (argc < 3 || !file || fread(head, 4, 6, file) != 6) return 1;
  const int cells = head[0], fans = head[1], days = head[2], inputs = head[3], vectors = head[4];
  const int traced = atoi(argv[2]);
  gate *gates = calloc(cells, sizeof *gates);
  int32_t *row = malloc(4 * 8), *fan = malloc(4 * fans);
  for (int i = 0; i < cells; i++) {
    if (fread(row, 4, 7, file) != 7) return 1;
    gates[i] = (gate){row[0], row[1], row[2], row[2], row[3], row[4], 0, -1, row[5], row[6]};
  }
  if (fread(fan, 4, fans, file) != (size_t)fans) return 1;
  int32_t *sources = malloc(4 * inputs);
  uint8_t *levels = malloc((size_t)inputs * vectors);
  if (fread(sources, 4, inputs, file) != (size_t)inputs) return 1;
  if (fread(levels, 1, (size_t)inputs * vectors, file) != (size_t)inputs * vectors) return 1;
  /* The output of a gate by its operation and the two bits of its inputs. */
  uint8_t table[32];
  for (int op = 0; op < 8; op++)
    for (int in = 0; in < 4; in++) {
      const int a = in & 1, b = in >> 1;
      const int v[8] = {a, !a, a & b, !(a & b), a | b, !(a | b), a ^ b, !(a ^ b)};
      table[op * 4 + in] = v[op];
    }
  list *wheel = calloc(days, sizeof *wheel);
  int32_t *touched = malloc(4 * (cells + 1));
  int64_t events = 0;
  int32_t now = 0, pending = 0;
  const uint32_t ring = (1 << 22) - 1;
  uint32_t *trace = malloc(4 * ((size_t)ring + 1));
  double *times = malloc(8 * ((size_t)ring + 1));
  uint32_t traceEnd = 0;
  struct timespec t0, t1;
  clock_gettime(CLOCK_MONOTONIC, &t0);
  for (int v = 0; v < vectors; v++) {
    int count = 0;
#define CHANGE(g, to_)                                                                                        \
  do {                                                                                                        \
    gate *c_ = &gates[g];                                                                                     \
    c_->value = c_->target = (to_);                                                                           \
    events++;                                                                                                 \
    if (traced) { trace[traceEnd & ring] = (uint32_t)(g) << 2 | (to_); times[traceEnd++ & ring] = now; }       \
    for (int f_ = c_->from; f_ < c_->to; f_++) {                                                              \
      gate *r_ = &gates[fan[f_] >> 1];                                                                        \
      r_->inputs ^= 1 << (fan[f_] & 1);                                                                       \
      touched[count] = fan[f_] >> 1;                                                                          \
      count += !r_->touched;                                                                                  \
      r_->touched = 1;                                                                                        \
    }                                                                                                         \
  } while (0)
    for (int i = 0; i < inputs; i++)
      if (gates[sources[i]].value != levels[(size_t)v * inputs + i]) CHANGE(sources[i], levels[(size_t)v * inputs + i]);
    for (;;) {
      for (int t = 0; t < count; t++) {
        const int g = touched[t];
        gate *c = &gates[g];
        c->touched = 0;
        const uint8_t value = table[c->op * 4 + c->inputs];
        if (value == c->target) continue;
        c->target = value;
        if (value == c->value) { pending--; continue; }
        c->due = now + (value ? c->rise : c->fall);
        list *day = &wheel[c->due % days];
        if (day->length == day->room) {
          day->room = day->room ? 2 * day->room : 64;
          day->items = realloc(day->items, 4 * (size_t)day->room);
        }
        day->items[day->length++] = g;
        pending++;
      }
      if (pending == 0) break;
      count = 0;
      list *day;
      do day = &wheel[++now % days];
      while (day->length == 0);
      for (int i = 0; i < day->length; i++) {
        const int g = day->items[i];
        if (gates[g].due != now || gates[g].target == gates[g].value) continue;
        pending--;
        CHANGE(g, gates[g].target);
      }
      day->length = 0;
    }
  }
  clock_gettime(CLOCK_MONOTONIC, &t1);
  printf("%f %lld\n", (t1.tv_sec - t0.tv_sec) * 1e3 + (t1.tv_nsec - t0.tv_nsec) / 1e6, (long long)events);
  return 0;
}
