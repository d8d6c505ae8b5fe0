import { OpenReturned } from '@/ui/pages/OpenReturned';

export const metadata = { title: 'Marked work · Manege' };

export default function Page() {
  return <OpenReturned />;
}
