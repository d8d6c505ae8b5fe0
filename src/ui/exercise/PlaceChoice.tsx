import type { Part, Sheet } from '@/core/circuit/sheet';
import { nameOfWire, type Place } from '@/core/exercise/kinds/fault/inject';
import { spokenName } from '@/core/parts/catalogue';

export const NOWHERE: Place = { part: null, wire: null };

/** A place as the value of an option, and back. */
const optionOf = ({ part, wire }: Place): string =>
  part !== null ? `part ${part}` : wire !== null ? `wire ${wire}` : '';
function placeOf(option: string): Place {
  const [what, id] = [option.slice(0, 4), option.slice(5)];
  return what === 'part' ? { part: id, wire: null } : what === 'wire' ? { part: null, wire: id } : NOWHERE;
}

interface Props {
  readonly label: string;
  readonly sheet: Sheet;
  /** The parts that can be chosen, besides all wires. */
  readonly parts: readonly Part[];
  readonly place: Place;
  /** What is chosen where no place is. */
  readonly none: string;
  readonly onPlace: (place: Place) => void;
}

/** A list of the parts and the wires of a sheet, by their names. */
export function PlaceChoice({ label, sheet, parts, place, none, onPlace }: Props) {
  return (
    <label className="flex min-w-0 flex-col gap-1">
      <span className="font-semibold">{label}</span>
      <select
        className="field max-w-full"
        value={optionOf(place)}
        onChange={(event) => onPlace(placeOf(event.target.value))}
      >
        <option value="">{none}</option>
        <optgroup label="Parts">
          {parts.map((part) => (
            <option key={part.id} value={optionOf({ part: part.id, wire: null })}>
              {spokenName(part)}
            </option>
          ))}
        </optgroup>
        <optgroup label="Wires">
          {[...sheet.wires.keys()].map((wire) => (
            <option key={wire} value={optionOf({ part: null, wire })}>
              {nameOfWire(sheet, wire)}
            </option>
          ))}
        </optgroup>
      </select>
    </label>
  );
}
