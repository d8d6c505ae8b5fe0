'use client';

import { OnDemand } from '@/ui/controls/OnDemand';

export type Face = 'table' | 'time';

export interface FacesMenuProps {
  readonly open: ReadonlySet<Face>;
  readonly onChange: (face: Face, open: boolean) => void;
}

const load = () => import('./FacesMenuList').then((m) => m.FacesMenuList);

/** The button behind which one chooses the faces. */
export function FacesMenu(props: FacesMenuProps) {
  return (
    <OnDemand className="button" popup="menu" load={load} props={props}>
      Faces
    </OnDemand>
  );
}
