import { EmbedLink } from '@/ui/pages/EmbedLink';

export const metadata = { title: 'Manege' };

export default function Page() {
  return <EmbedLink />;
}
