'use client';

import { OnDemand } from '@/ui/controls/OnDemand';
import type { FacesMenuProps } from './face';

const load = () => import('./FacesMenuList').then((m) => m.FacesMenuList);

/** The button behind which one chooses the faces. */
export function FacesMenu(props: FacesMenuProps) {
  return (
    <OnDemand className="button" popup="menu" load={load} props={props}>
      Faces
    </OnDemand>
  );
}
