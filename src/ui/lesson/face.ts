/** The faces that stand beside the drawing where they are open. */
export type Face = 'table' | 'formula' | 'map' | 'time' | 'states';

export interface FacesMenuProps {
  readonly open: ReadonlySet<Face>;
  readonly onChange: (face: Face, open: boolean) => void;
}
