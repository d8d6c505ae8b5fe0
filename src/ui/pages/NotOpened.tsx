import { WholePage } from '@/ui/controls/WholePage';

/** Instead of a lesson that is not here, or that cannot be read. */
export function NotOpened({ problem }: { problem: string | null }) {
  if (problem !== null)
    return (
      <WholePage title="This lesson cannot be opened">
        <p className="max-w-md text-quiet">{problem}</p>
      </WholePage>
    );
  return (
    <WholePage title="This lesson is not in this browser">
      <p className="max-w-md text-quiet">
        Lessons stay in the browser in which they were made. Import the lesson’s file on the shelf to open it
        here.
      </p>
    </WholePage>
  );
}
