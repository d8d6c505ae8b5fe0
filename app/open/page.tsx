import { OpenLink } from '@/ui/pages/OpenLink';

export const metadata = { title: 'Lesson · Manege' };

export default function Page() {
  return <OpenLink />;
}
