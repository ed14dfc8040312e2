type Suspect = { element: string; fault: string };

const OF_THE_UNIT: Record<string, string> = {
    'line-pressure': 'Line pressure',
    pump: 'Pump',
    control: 'Control',
    vehicle: 'The vehicle, not the unit',
    sound: 'Nothing wrong',
    'converter no-drive': 'Converter',
    'converter lock-up': 'Lock-up clutch',
    'converter stays-locked': 'Lock-up stays on',
    'converter stator-free': 'Stator free both ways',
    'converter stator-locked': 'Stator locked both ways',
    'converter sheared-hub': 'Converter hub sheared',
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
    if (element.includes('+')) return `${element.replace('+', ' and ')} weak together`;
    return ofTheUnit ?? `${element} ${FAULTS[fault] ?? fault}`;
}

/** Where one looks, by kind of look. */
export const LOOK: Record<string, (what: string) => string> = {
    gear: (what) => `drive gear ${what}`,
    shift: (what) => `drive the shift ${what}`,
    lockup: () => 'drive at the speed where it locks up',
    pressure: (what) => `gauge at the tap of ${what}`,
    launch: () => 'pull away from rest',
    idle: () => 'let it idle in gear',
    road: () => 'drive it hot on the road',
    noise: () => 'listen in park, at idle in gear and in each gear',
    pan: () => 'look into the pan',
    air: (what) => `blow air into ${what}`,
    finding: (what) => `take ${what} apart`,
};
