type Suspect = { element: string; fault: string };

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

/** Where one looks, by kind of look. */
export const LOOK: Record<string, (what: string) => string> = {
    gear: (what) => `drive gear ${what}`,
    shift: (what) => `drive the shift ${what}`,
    lockup: () => 'drive at the speed where it locks up',
    pressure: (what) => `gauge at the tap of ${what}`,
};
