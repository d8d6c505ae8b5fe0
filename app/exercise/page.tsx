import { OpenExercise } from '@/ui/exercise/OpenExercise';

export const metadata = { title: 'Exercise · Manege' };

export default function Page() {
  return <OpenExercise />;
}
