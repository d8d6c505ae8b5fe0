import { LookLink } from '@/ui/pages/LookLink';

export const metadata = { title: 'Lesson · Manege' };

export default function Page() {
  return <LookLink />;
}
