/** The look of the tab whose sheet is open; a press on it opens its menu. */
export const OPEN_TAB =
  'flex h-8 max-w-[min(18rem,100%)] shrink-0 cursor-pointer items-center gap-1 rounded-full bg-accent-soft px-3 font-semibold text-accent';

export function OpenTab({ name }: { name: string }) {
  return (
    <>
      <span className="truncate">{name}</span> <span aria-hidden="true">▾</span>
    </>
  );
}
