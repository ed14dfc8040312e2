import type { Card } from '../../api/client';

type Suspect = Pick<NonNullable<Card['teardown']>['suspects'][number], 'element' | 'fault'>;

const OF_THE_UNIT: Record<string, string> = {
    'line-pressure': 'Line pressure',
    pump: 'Pump',
    control: 'Control',
    sound: 'Nothing wrong',
    'converter no-drive': 'Converter',
    'converter lock-up': 'Lock-up clutch',
};
const FAULTS: Record<string, string> = {
    weak: 'weak',
    'stuck-on': 'stuck on',
    'stuck-off': 'dead',
    free: 'free both ways',
    locked: 'locked both ways',
    reversed: 'wrong way round',
};

/** What may be wrong, in the words of the bench. */
export function suspectSaid({ element, fault }: Suspect): string {
    const ofTheUnit = OF_THE_UNIT[`${element} ${fault}`] ?? OF_THE_UNIT[element];
    return ofTheUnit ?? `${element} ${FAULTS[fault] ?? fault}`;
}
