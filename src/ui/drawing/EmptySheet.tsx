import { useByFinger } from '@/ui/controls/useMedia';
import { useSessionState } from '@/ui/session/session-context';

/** The first steps, on an empty sheet. */
export function EmptySheet({ readOnly }: { readOnly: boolean }) {
  const isScratch = useSessionState((s) => s.rules.isScratch);
  const isByFinger = useByFinger();
  if (readOnly) return null;
  return (
    <div className="pointer-events-none absolute inset-0 flex flex-col items-center justify-center gap-2 p-8 text-center">
      <p className="text-xl font-semibold">{isScratch ? 'A sheet to try things on' : 'An empty sheet'}</p>
      {isScratch && (
        <p className="max-w-md text-quiet">This task asks for no circuit. You may draw one if it helps.</p>
      )}
      {isByFinger ? (
        <p className="max-w-md text-quiet">Hold a finger on the paper for the ring of parts.</p>
      ) : (
        <p className="max-w-md text-quiet">
          Press <Key>Space</Key> or the right mouse button for the ring of parts, or simply type a name:{' '}
          <Key>sw A, B</Key> <Key>and</Key> <Key>lamp</Key>
        </p>
      )}
      <p className="max-w-md text-balance text-quiet">
        Then drag from pin to pin to wire them, and {isByFinger ? 'tap' : 'click'} a switch to try.
      </p>
    </div>
  );
}

function Key({ children }: { children: string }) {
  return (
    <kbd className="rounded-md border border-hairline bg-raised px-1.5 py-0.5 font-mono text-[0.85em] text-ink">
      {children}
    </kbd>
  );
}
