import { Dialog, DialogPanel, DialogTitle, Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { lazy, Suspense, useEffect, useState, type ReactNode } from 'react';
import { Link, NavLink, Route, Routes, useLocation, useNavigate } from 'react-router';
import { useIdleLock, useSession } from './api/session';
import { Home } from './home/Home';
import { firstPlaces, otherPlaces } from './home/navigation';
import { Loading, Mark } from './kit/basics';
import { ErrorBoundary } from './kit/ErrorBoundary';
import { ScanLine } from './kit/ScanLine';
import { Locked, SignIn } from './rooms/shop/SignIn';

const OwnPin = lazy(() => import('./rooms/shop/OwnPin').then((m) => ({ default: m.OwnPin })));
const UnitCard = lazy(() => import('./card/UnitCard').then((m) => ({ default: m.UnitCard })));
const Units = lazy(() => import('./rooms/yard/Units').then((m) => ({ default: m.Units })));
const Receive = lazy(() => import('./stations/receiving/Receive').then((m) => ({ default: m.Receive })));
const BagLabels = lazy(() => import('./stations/assembly/BagLabels').then((m) => ({ default: m.BagLabels })));
const PartLabels = lazy(() => import('./stations/teardown/PartLabels').then((m) => ({ default: m.PartLabels })));
const Label = lazy(() => import('./stations/receiving/Label').then((m) => ({ default: m.Label })));
const Sheet = lazy(() => import('./stations/dispatch/Sheet').then((m) => ({ default: m.Sheet })));
const Calculators = lazy(() => import('./rooms/shop/Calculators').then((m) => ({ default: m.Calculators })));
const Cells = lazy(() => import('./stations/dyno/Cells').then((m) => ({ default: m.Cells })));
const Gauges = lazy(() => import('./rooms/shop/Gauges').then((m) => ({ default: m.Gauges })));
const BinPlan = lazy(() => import('./rooms/insight/BinPlan').then((m) => ({ default: m.BinPlan })));
const Processes = lazy(() => import('./rooms/insight/Processes').then((m) => ({ default: m.Processes })));
const Tools = lazy(() => import('./rooms/shop/Tools').then((m) => ({ default: m.Tools })));
const SecondLooks = lazy(() => import('./stations/teardown/SecondLooks').then((m) => ({ default: m.SecondLooks })));
const HouseRules = lazy(() => import('./rooms/shop/HouseRules').then((m) => ({ default: m.HouseRules })));
const Stock = lazy(() => import('./rooms/stock/Stock').then((m) => ({ default: m.Stock })));
const Lot = lazy(() => import('./rooms/stock/Lot').then((m) => ({ default: m.Lot })));
const Pallet = lazy(() => import('./stations/receiving/Pallet').then((m) => ({ default: m.Pallet })));
const Balances = lazy(() => import('./stations/receiving/Balances').then((m) => ({ default: m.Balances })));
const Statement = lazy(() => import('./stations/receiving/Balances').then((m) => ({ default: m.Statement })));
const Interchange = lazy(() => import('./rooms/interchange/Interchange').then((m) => ({ default: m.Interchange })));
const Trainer = lazy(() => import('./stations/identification/Trainer').then((m) => ({ default: m.Trainer })));
const CatalogDesk = lazy(() => import('./rooms/catalog/CatalogDesk').then((m) => ({ default: m.CatalogDesk })));
const Quote = lazy(() => import('./stations/ordering/Quote').then((m) => ({ default: m.Quote })));
const ComparePage = lazy(() => import('./stations/ordering/Compare').then((m) => ({ default: m.ComparePage })));
const Power = lazy(() => import('./rooms/power/Power').then((m) => ({ default: m.Power })));
const Families = lazy(() => import('./rooms/catalog/Families').then((m) => ({ default: m.Families })));
const Insight = lazy(() => import('./rooms/insight/Insight').then((m) => ({ default: m.Insight })));
const Health = lazy(() => import('./rooms/shop/Health').then((m) => ({ default: m.Health })));
const People = lazy(() => import('./rooms/shop/People').then((m) => ({ default: m.People })));
const YardPlan = lazy(() => import('./rooms/yard/YardPlan').then((m) => ({ default: m.YardPlan })));

const SHORTCUTS = [
    ['/', 'Scan line'],
    ['h', 'My first page'],
    ['y', 'Yard'],
    ['n', 'Receive a core'],
    ['x', 'Interchange'],
    ['m', 'Everything else in the house'],
    ['[ and ]', 'Previous and next section of a route card'],
    ['l', 'Light or dark'],
    ['?', 'This list'],
] as const;

/** Nobody is in yet, or somebody whose PIN is too short to sign with. */
function Door() {
    const { person, locked, failed } = useSession();
    if (!person) return <SignIn failed={failed} badge={locked?.badge ?? ''} />;
    return (
        <Suspense fallback={<Loading what="the door" />}>
            <OwnPin digits={person.shortestPin ?? 0} />
        </Suspense>
    );
}

type Light = { light: string; setLight: (change: (v: string) => string) => void };

export function App() {
    const session = useSession();
    const [light, setLight] = useState(
        () => localStorage.getItem('yard.light') ?? (matchMedia('(prefers-color-scheme: dark)').matches ? 'off' : 'on'),
    );
    const [help, setHelp] = useState(false);
    const path = useLocation().pathname;

    useEffect(() => {
        document.documentElement.dataset.light = light;
        localStorage.setItem('yard.light', light);
    }, [light]);
    useShortcuts(() => setHelp(true), setLight);
    useIdleLock();

    if (session.loading) return <Loading what="the yard" />;
    if (!session.person || session.person.shortestPin !== null) return <Door />;

    return (
        <div className="min-h-screen">
            <a href="#work" className="sr-only focus:not-sr-only focus:absolute focus:z-30 focus:bg-sheet focus:p-3">
                Skip to the work
            </a>
            <Head light={light} setLight={setLight} onKeys={() => setHelp(true)} />
            {session.kept && <NoNetwork />}
            <main
                id="work"
                tabIndex={-1}
                className="mx-auto max-w-7xl px-4 py-2 outline-none"
                key={path.split('/').slice(0, 3).join('/')}
            >
                <ErrorBoundary>
                    <Suspense fallback={<Loading what="the page" />}>
                        <Pages />
                    </Suspense>
                </ErrorBoundary>
            </main>
            <Keys open={help} onClose={setHelp} />
            {session.locked && <Locked {...session.locked} />}
        </div>
    );
}

function NoNetwork() {
    return (
        <p role="status" className="no-print border-b-4 border-warn bg-sheet px-4 py-1 text-center">
            <Mark kind="warn">No network</Mark> The benches go on with what this tablet keeps; the rest waits.
        </p>
    );
}

function useShortcuts(onHelp: () => void, setLight: Light['setLight']) {
    const go = useNavigate();
    useEffect(() => {
        const click = (selector: string) => document.querySelector<HTMLElement>(selector)?.click();
        const actions: Record<string, () => void> = {
            '/': () => document.getElementById('scan-line')?.focus(),
            h: () => void go('/'),
            y: () => void go('/yard'),
            n: () => void go('/receiving'),
            x: () => void go('/interchange'),
            m: () => click('#more-places'),
            '?': onHelp,
            l: () => setLight((v) => (v === 'on' ? 'off' : 'on')),
            '[': () => click('[data-section-before]'),
            ']': () => click('[data-section-after]'),
        };
        const onKey = (e: KeyboardEvent) => {
            const typing = e.target instanceof Element && e.target.closest('input, textarea, select, [role=dialog]');
            const run = actions[e.key];
            if (e.ctrlKey || e.metaKey || e.altKey || typing || !run) return;
            e.preventDefault();
            run();
        };
        addEventListener('keydown', onKey);
        return () => removeEventListener('keydown', onKey);
    });
}

/** One line: home, the scan line, a person's own places first, the rest behind one key, the badge. */
function Head({ light, setLight, onKeys }: Light & { onKeys: () => void }) {
    const session = useSession();
    const role = session.person?.role ?? 'viewer';
    const place = 'inline-flex min-h-12 items-center border-b-4 px-2 whitespace-nowrap';
    return (
        <header className="no-print sticky top-0 z-10 bg-enamel text-enamel-ink shadow">
            <div className="mx-auto flex max-w-7xl items-center gap-3 px-4">
                <Link to="/" className="inline-flex min-h-12 items-center font-head text-2xl whitespace-nowrap">
                    Vast Yard
                </Link>
                <ScanLine />
                <nav aria-label="Main" className="hidden items-center md:flex">
                    {firstPlaces(role).map(({ to, text }) => (
                        <NavLink
                            key={to}
                            to={to}
                            className={({ isActive }) =>
                                `${place} ${isActive ? 'border-enamel-ink font-semibold' : 'border-transparent'}`
                            }
                        >
                            {text}
                        </NavLink>
                    ))}
                </nav>
                <DropDown id="more-places" label="More">
                    {otherPlaces(role).map(({ to, text }) => (
                        <MenuItem key={to}>
                            <Link to={to} className={ITEM}>
                                {text}
                            </Link>
                        </MenuItem>
                    ))}
                </DropDown>
                <BadgeMenu light={light} setLight={setLight} onKeys={onKeys} />
            </div>
        </header>
    );
}

function BadgeMenu({ light, setLight, onKeys }: Light & { onKeys: () => void }) {
    const session = useSession();
    return (
        <DropDown id="badge" label={session.person?.name ?? ''} detail={session.person?.role ?? ''}>
            <MenuItem>
                <button type="button" className={ITEM} disabled={session.kept} onClick={() => void session.leave()}>
                    {session.kept ? 'Switch badge (needs the network)' : 'Switch badge'}
                </button>
            </MenuItem>
            <MenuItem>
                <button type="button" className={ITEM} onClick={() => void session.lock()}>
                    Lock the tablet
                </button>
            </MenuItem>
            <MenuItem>
                <button type="button" className={ITEM} onClick={() => setLight((v) => (v === 'on' ? 'off' : 'on'))}>
                    {light === 'on' ? 'Dark' : 'Light'}
                </button>
            </MenuItem>
            <MenuItem>
                <button type="button" className={ITEM} onClick={onKeys}>
                    Keys ?
                </button>
            </MenuItem>
        </DropDown>
    );
}

const ITEM = 'flex min-h-11 w-full items-center px-4 text-left data-focus:bg-enamel data-focus:text-enamel-ink';

function DropDown({
    id,
    label,
    detail,
    children,
}: {
    id: string;
    label: string;
    detail?: string;
    children: ReactNode;
}) {
    return (
        <Menu>
            <MenuButton id={id} className="min-h-12 px-2 text-left leading-tight whitespace-nowrap">
                <span className="block font-semibold">
                    {label} <span aria-hidden="true">▾</span>
                </span>
                {detail && <span className="block text-sm">{detail}</span>}
            </MenuButton>
            <MenuItems
                anchor="bottom end"
                className="z-20 min-w-48 border-2 border-edge bg-sheet py-1 text-ink shadow-lg outline-none"
            >
                {children}
            </MenuItems>
        </Menu>
    );
}

/** What keeps the house in order: gauges, cells, rules, people. */
const HOUSE = (
    <>
        <Route path="/calculators" element={<Calculators />} />
        <Route path="/tools" element={<Tools />} />
        <Route path="/dyno/cells" element={<Cells />} />
        <Route path="/gauges" element={<Gauges />} />
        <Route path="/bin-plan/:family?" element={<BinPlan />} />
        <Route path="/bin-plan/:family/:pack" element={<BinPlan />} />
        <Route path="/processes/:family?" element={<Processes />} />
        <Route path="/processes/:family/:kind/:code" element={<Processes />} />
        <Route path="/second-looks" element={<SecondLooks />} />
        <Route path="/house-rules" element={<HouseRules />} />
        <Route path="/health" element={<Health />} />
        <Route path="/people/:badge?" element={<People />} />
    </>
);

function Pages() {
    return (
        <Routes>
            <Route path="/" element={<Home />} />
            <Route path="/yard" element={<YardPlan />} />
            <Route path="/units" element={<Units />} />
            <Route path="/units/:number/label" element={<Label />} />
            <Route path="/units/:number/assembly/bags" element={<BagLabels />} />
            <Route path="/units/:number/teardown/labels" element={<PartLabels />} />
            <Route path="/units/:number/ordering/quote" element={<Quote />} />
            <Route path="/units/:number/ordering/compare" element={<ComparePage />} />
            <Route path="/units/:number/dispatch/sheet" element={<Sheet />} />
            <Route path="/units/:number/:section?" element={<UnitCard />} />
            <Route path="/receiving" element={<Receive />} />
            <Route path="/receiving/pallet" element={<Pallet />} />
            <Route path="/identification/trainer" element={<Trainer />} />
            <Route path="/interchange" element={<Interchange />} />
            <Route path="/core-accounts" element={<Balances />} />
            <Route path="/core-accounts/:code" element={<Statement />} />
            <Route path="/catalog" element={<Families />} />
            <Route path="/catalog/entries" element={<CatalogDesk />} />
            <Route path="/power/:family?" element={<Power />} />
            <Route path="/stock" element={<Stock />} />
            <Route path="/lots/:lot" element={<Lot />} />
            <Route path="/insight" element={<Insight />} />
            {HOUSE}
            <Route path="*" element={<Nowhere />} />
        </Routes>
    );
}

function Nowhere() {
    return (
        <p className="sheet p-6">
            There is no page at this address. The scan line above finds units, parts and customers.
        </p>
    );
}

function Keys({ open, onClose }: { open: boolean; onClose: (open: boolean) => void }) {
    return (
        <Dialog open={open} onClose={onClose} className="relative z-30">
            <div className="fixed inset-0 bg-black/50" aria-hidden="true" />
            <div className="fixed inset-0 flex items-center justify-center p-4">
                <DialogPanel className="sheet w-full max-w-md p-6">
                    <DialogTitle className="text-2xl">Keys</DialogTitle>
                    <dl className="my-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-2">
                        {SHORTCUTS.map(([key, what]) => (
                            <div key={key} className="contents">
                                <dt>
                                    <kbd className="border border-rule bg-sheet px-2 font-semibold">{key}</kbd>
                                </dt>
                                <dd>{what}</dd>
                            </div>
                        ))}
                    </dl>
                    <button type="button" className="btn" onClick={() => onClose(false)}>
                        Close
                    </button>
                </DialogPanel>
            </div>
        </Dialog>
    );
}
