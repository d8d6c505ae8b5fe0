'use client';

import { fetcher } from '@/loading/load';
import { OnDemand } from '@/ui/controls/OnDemand';
import type { FacesMenuProps } from './face';

const load = fetcher('the menu of faces', () => import('./FacesMenuList').then((m) => m.FacesMenuList));

/** The button behind which one chooses the faces. */
export function FacesMenu(props: FacesMenuProps) {
  return (
    <OnDemand className="button" popup="menu" load={load} props={props}>
      Faces
    </OnDemand>
  );
}
