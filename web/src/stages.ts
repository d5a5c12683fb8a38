// The order of the work. A stage is added here and in its folder.

import { boxStage } from './features/box/stage';
import { briefStage } from './features/brief/stage';
import { buildStage } from './features/build/stage';
import { curvesStage } from './features/curves/stage';
import { driverStage } from './features/find/stage';
import { measureStage } from './features/measure/stage';
import { placeStage } from './features/place/stage';
import type { Stage } from './features/shell/stages';
import { signalStage } from './features/signal/stage';

export const STAGES: readonly Stage[] = [
  briefStage,
  driverStage,
  curvesStage,
  boxStage,
  signalStage,
  placeStage,
  buildStage,
  measureStage,
];
