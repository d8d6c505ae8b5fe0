import { OpenExercise } from '@/ui/pages/OpenExercise';

export const metadata = { title: 'Exercise · Manege' };

export default function Page() {
  return <OpenExercise />;
}
