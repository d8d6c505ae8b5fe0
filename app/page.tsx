import { Shelf } from '@/ui/shelf/Shelf';
import { demoLessons } from './demo-lessons';

export default async function Page() {
  return <Shelf demos={await demoLessons()} />;
}
