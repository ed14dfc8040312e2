import type { Schemas } from '../../api/client';
import { Mark } from '../../kit/basics';

const SAYS: Record<Schemas['RigState'], ['bad' | 'warn', string] | null> = {
    ready: null,
    stopped: ['bad', 'the emergency stop is pressed: nothing turns until it is released at the rig'],
    silent: ['warn', 'the rig does not answer: is it switched on?'],
    unwatched: ['warn', 'nothing is heard of the rig: the gateway may be down'],
};

/** What keeps a rig from turning, if anything does. */
export function RigState({ rig }: { rig: Schemas['RigState'] }) {
    const says = SAYS[rig];
    return says && <Mark kind={says[0]}>{says[1]}</Mark>;
}
