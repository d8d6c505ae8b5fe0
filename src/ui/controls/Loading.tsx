/** Shown while something is fetched; it appears only after a moment, so that quick work does not flicker. */
export function Loading({ what }: { what: string }) {
  return (
    <main className="flex h-dvh items-center justify-center text-quiet" aria-busy="true">
      <p className="motion-safe:animate-[appear_0.3s_0.3s_both]">{what}</p>
    </main>
  );
}
