'use client';

import { fetcher } from '@/loading/load';
import { OnDemand } from '@/ui/controls/OnDemand';

const load = fetcher('the menu of faces', () => import('./FacesMenuList').then((m) => m.FacesMenuList));

/** The button behind which one chooses the faces. @param open the faces that are open. */
export function FacesMenu(props: { open: ReadonlySet<string> }) {
  return (
    <OnDemand className="button" popup="menu" load={load} props={props}>
      Faces
    </OnDemand>
  );
}
