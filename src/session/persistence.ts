import type { Edit } from '@/core/circuit/edit';
import type { MomentRecord, SheetMoment } from '@/store/database';
import type { LessonWriter, Saving } from '@/store/lesson-writer';
import type { Session } from './session';
import type { KeptStanding } from './standing';
import type { PersistenceSink, SessionState } from './state';

/** Milliseconds for which switches may change before their positions are written. */
const MOMENT_EVERY_MS = 400;
/** Rows whose tries are kept at most. */
const MOST_TRIED = 5000;

type Moment = Omit<MomentRecord, 'lesson' | 'seconds'>;

const sheetMoment = ({ on, tried, circuit }: KeptStanding): SheetMoment => ({
  inputs: Object.fromEntries([...on].map((part) => [part, 1 as const])),
  tried: [...tried].slice(0, MOST_TRIED),
  circuit: circuit ?? undefined,
});

function momentIn({ state, standings }: Session): Moment {
  const others = [...standings].filter(([id]) => id !== state.rootId);
  return {
    sheet: state.rootId,
    ...sheetMoment(standings.get(state.rootId)!),
    others: Object.fromEntries(others.map(([id, standing]) => [id, sheetMoment(standing)])),
  };
}

/** Switches and tried rows of each sheet, from what was kept of an earlier visit. */
export function standingsOf({ sheet, others, ...own }: MomentRecord): Map<string, KeptStanding> {
  const standing = ({ inputs, tried, circuit, moment }: SheetMoment): KeptStanding => ({
    on: new Set(Object.keys(inputs).filter((part) => inputs[part])),
    // In older records a tried row was only a number, without its outputs.
    tried: new Map(tried.filter((one) => Array.isArray(one))),
    circuit: circuit ?? null,
    moment,
  });
  const all = Object.entries(others ?? {}).map(([id, moment]) => [id, standing(moment)] as const);
  return new Map([...all, [sheet, standing(own)]]);
}

/** Keeps the work in a session: each edit at once, the moment now and then. */
export class Persistence implements PersistenceSink {
  private readonly writer: LessonWriter;
  private edits: Saving = { is: 'saved' };
  private timer: ReturnType<typeof setTimeout> | undefined;
  private isMomentBehind = false;
  private kept: Pick<SessionState, 'on' | 'tried' | 'rootId'>;

  /**
   * @param writerTelling makes the writer of the lesson's edits.
   * @param saveMoment keeps switches and tried rows.
   */
  constructor(
    private readonly session: Session,
    writerTelling: (tell: (saving: Saving) => void) => LessonWriter,
    private readonly saveMoment: (moment: Moment) => Promise<void>,
  ) {
    this.kept = session.state;
    this.writer = writerTelling((saving) => {
      this.edits = saving;
      this.tell();
    });
  }

  /** Whether edits were made that are not kept yet. */
  get isBehind(): boolean {
    return this.writer.isBehind;
  }

  private tell(): void {
    this.session.setSaving(this.edits.is === 'saved' && this.isMomentBehind ? { is: 'saving' } : this.edits);
  }

  edit(edit: Edit): void {
    this.writer.edit(edit);
  }

  moment({ on, tried, rootId }: SessionState): void {
    const { kept } = this;
    if (on === kept.on && tried === kept.tried && rootId === kept.rootId) return;
    this.kept = { on, tried, rootId };
    if (!this.isMomentBehind) {
      this.isMomentBehind = true;
      this.tell();
    }
    this.timer ??= setTimeout(() => void this.flush(), MOMENT_EVERY_MS);
  }

  retry(): void {
    this.writer.retry();
  }

  /** Keeps the moment at once. */
  async flush(): Promise<void> {
    clearTimeout(this.timer);
    this.timer = undefined;
    const { rootId, on, tried } = this.session.state;
    this.kept = { on, tried, rootId };
    try {
      await this.saveMoment(momentIn(this.session));
    } catch {
      // Where switches stand is worth no complaint: they can be put again.
    }
    this.isMomentBehind = this.timer !== undefined;
    this.tell();
  }

  close(): void {
    void this.flush();
    this.writer.close();
  }
}
