import { NextResponse } from 'next/server';
import { demoLessons } from '../demo-lessons';

export const dynamic = 'force-static';

/** The files of the demo lessons, for a page that is asked for one of them before the shelf was ever seen. */
export async function GET(): Promise<NextResponse> {
  return NextResponse.json(await demoLessons());
}
