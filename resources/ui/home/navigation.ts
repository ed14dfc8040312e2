/** Where a badge begins and what stands first in its navigation; everything else is one key away. */
export type Place = { to: string; text: string };

const PLACES = {
    receiving: { to: '/receiving', text: 'Receive a core' },
    yard: { to: '/yard', text: 'Yard' },
    units: { to: '/units', text: 'Units' },
    interchange: { to: '/interchange', text: 'Interchange' },
    stock: { to: '/stock', text: 'Stock' },
    accounts: { to: '/core-accounts', text: 'Core accounts' },
    catalog: { to: '/catalog', text: 'Catalog' },
    entries: { to: '/catalog/entries', text: 'Catalog entries' },
    power: { to: '/power', text: 'Power flow' },
    insight: { to: '/insight', text: 'Insight' },
    calculators: { to: '/calculators', text: 'Calculators' },
    cells: { to: '/dyno/cells', text: 'Test cells' },
    gauges: { to: '/gauges', text: 'Gauges' },
    processes: { to: '/processes', text: 'What the bench reaches' },
    bin: { to: '/bin-plan', text: 'The bin, shared out' },
    tools: { to: '/tools', text: 'Special tools' },
    looks: { to: '/second-looks', text: 'Second looks' },
    rules: { to: '/house-rules', text: 'House rules' },
    people: { to: '/people', text: 'People' },
    health: { to: '/health', text: 'Health' },
    trainer: { to: '/identification/trainer', text: 'Trainer' },
} as const satisfies Record<string, Place>;

type Key = keyof typeof PLACES;

const FIRST: Record<string, Key[]> = {
    manager: ['yard', 'receiving', 'interchange', 'accounts', 'insight'],
    receiver: ['receiving', 'interchange', 'yard', 'accounts'],
    teardown: ['yard', 'stock', 'looks', 'catalog'],
    builder: ['yard', 'stock', 'power'],
    dyno: ['yard', 'cells', 'power'],
    returns: ['yard', 'insight', 'interchange'],
    viewer: ['yard', 'units', 'catalog', 'power'],
};

const MANAGERS: Place[] = [PLACES.people, PLACES.health];

export const firstPlaces = (role: string): Place[] => (FIRST[role] ?? FIRST.viewer ?? []).map((k) => PLACES[k]);

export const otherPlaces = (role: string): Place[] => {
    const first = firstPlaces(role).map((p) => p.to);
    return Object.values(PLACES).filter((p) => !first.includes(p.to) && (!MANAGERS.includes(p) || role === 'manager'));
};
