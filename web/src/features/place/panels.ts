// What there is to see and set of a place; a new panel is a line here.

import type { ComponentType } from 'react';
import type { RawListeningPlace } from '../../schema/types';
import { BatteryPanel } from './BatteryPanel';
import { BestPlacesPanel } from './BestPlacesPanel';
import { EarsPanel } from './EarsPanel';
import { MethodsPanel } from './MethodsPanel';
import { ModesPanel } from './ModesPanel';
import type { PanelProps } from './panel';
import { RoomPanel } from './RoomPanel';
import { SeatsPanel } from './SeatsPanel';

interface PlacePanel {
  id: string;
  name: string;
  /** Whether a place has it. */
  of: (place: RawListeningPlace) => boolean;
  Panel: ComponentType<PanelProps>;
}

const always = () => true;
const walled = ({ kind }: RawListeningPlace) => kind !== 'outdoors';

export const PANELS: readonly [PlacePanel, ...PlacePanel[]] = [
  { id: 'seats', name: 'Seats', of: always, Panel: SeatsPanel },
  { id: 'room', name: 'Walls', of: walled, Panel: RoomPanel },
  { id: 'waves', name: 'Standing waves', of: walled, Panel: ModesPanel },
  { id: 'best', name: 'Best places', of: walled, Panel: BestPlacesPanel },
  { id: 'ears', name: 'Ears', of: always, Panel: EarsPanel },
  {
    id: 'battery',
    name: 'Battery',
    of: (place) => !walled(place) || Boolean(place.battery),
    Panel: BatteryPanel,
  },
  { id: 'methods', name: 'Methods', of: walled, Panel: MethodsPanel },
];
