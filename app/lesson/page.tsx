'use client';

import { useEffect, useState } from 'react';
import { OpenLesson } from '@/ui/pages/OpenLesson';

/** The lesson's id is in the address and is read in the browser, so one cached page serves every lesson. */
export default function Page() {
  const [id, setId] = useState<string | null>(null);
  useEffect(() => setId(new URLSearchParams(location.search).get('id') ?? ''), []);
  return <OpenLesson id={id} />;
}
