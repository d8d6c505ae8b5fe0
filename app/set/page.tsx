import { OpenSet } from '@/ui/pages/OpenSet';

export const metadata = { title: 'Tasks · Manege' };

export default function Page() {
  return <OpenSet />;
}
