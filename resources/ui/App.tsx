import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { lazy, Suspense, useEffect, useState } from 'react';
import { NavLink, Route, Routes, useLocation, useNavigate } from 'react-router';
import { useSession } from './api/session';
import { Loading } from './kit/basics';
import { ErrorBoundary } from './kit/ErrorBoundary';
import { ScanLine } from './kit/ScanLine';
import { SignIn } from './rooms/shop/SignIn';
import { Yard } from './rooms/yard/Yard';
import { UnitCard } from './card/UnitCard';

const Units = lazy(() => import('./rooms/yard/Units').then((m) => ({ default: m.Units })));
const Receive = lazy(() => import('./stations/receiving/Receive').then((m) => ({ default: m.Receive })));
const Label = lazy(() => import('./stations/receiving/Label').then((m) => ({ default: m.Label })));
const Sheet = lazy(() => import('./stations/dispatch/Sheet').then((m) => ({ default: m.Sheet })));
const Calculators = lazy(() => import('./rooms/shop/Calculators').then((m) => ({ default: m.Calculators })));
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

const LINKS = [
    ['/', 'Yard'],
    ['/units', 'Units'],
    ['/receive', 'Receive'],
    ['/interchange', 'Interchange'],
    ['/stock', 'Stock'],
    ['/cores-owed', 'Core accounts'],
    ['/catalog', 'Catalog'],
    ['/power', 'Power flow'],
    ['/insight', 'Insight'],
    ['/calculators', 'Calculators'],
    ['/house-rules', 'House rules'],
] as const;

const SHORTCUTS = [
    ['/', 'Scan line'],
    ['y', 'Yard'],
    ['n', 'Receive a core'],
    ['x', 'Interchange'],
    ['[ and ]', 'Previous and next section of a route card'],
    ['l', 'Light or dark'],
    ['?', 'This list'],
] as const;

export function App() {
    const session = useSession();
    const [light, setLight] = useState(
        () => localStorage.getItem('yard.light') ?? (matchMedia('(prefers-color-scheme: dark)').matches ? 'off' : 'on'),
    );
    const [help, setHelp] = useState(false);
    const go = useNavigate();
    const path = useLocation().pathname;

    useEffect(() => {
        document.documentElement.dataset.light = light;
        localStorage.setItem('yard.light', light);
    }, [light]);

    useEffect(() => {
        const onKey = (e: KeyboardEvent) => {
            const target = e.target as HTMLElement;
            if (e.ctrlKey || e.metaKey || e.altKey || target.closest('input, textarea, select, [role=dialog]')) return;
            const action: Record<string, () => void> = {
                '/': () => document.getElementById('scan-line')?.focus(),
                y: () => void go('/'),
                n: () => void go('/receive'),
                x: () => void go('/interchange'),
                '?': () => setHelp(true),
                l: () => setLight((v) => (v === 'on' ? 'off' : 'on')),
                '[': () => document.querySelector<HTMLAnchorElement>('[data-section-before]')?.click(),
                ']': () => document.querySelector<HTMLAnchorElement>('[data-section-after]')?.click(),
            };
            const run = action[e.key];
            if (run) {
                e.preventDefault();
                run();
            }
        };
        addEventListener('keydown', onKey);
        return () => removeEventListener('keydown', onKey);
    }, [go]);

    if (session.loading) return <Loading what="the yard" />;
    if (!session.person) return <SignIn failed={session.failed} />;

    return (
        <div className="min-h-screen">
            <a href="#work" className="sr-only focus:not-sr-only focus:absolute focus:z-30 focus:bg-sheet focus:p-3">
                Skip to the work
            </a>
            <header className="no-print sticky top-0 z-10 bg-enamel text-enamel-ink shadow">
                <div className="mx-auto flex max-w-7xl items-center gap-4 px-4 py-2">
                    <span className="font-head text-2xl whitespace-nowrap">Vast Yard</span>
                    <ScanLine />
                    <button
                        type="button"
                        className="min-h-11 px-2 text-left leading-tight"
                        onClick={() => void session.leave()}
                        title="Switch to another badge"
                    >
                        <span className="block font-semibold whitespace-nowrap">{session.person.name}</span>
                        <span className="block text-sm whitespace-nowrap">{session.person.role} · switch badge</span>
                    </button>
                </div>
                <nav aria-label="Main" className="mx-auto flex max-w-7xl flex-wrap items-center gap-x-1 px-4">
                    {LINKS.map(([to, text]) => (
                        <NavLink
                            key={to}
                            to={to}
                            end={to === '/'}
                            className={({ isActive }) =>
                                `inline-flex min-h-11 items-center px-3 ${isActive ? 'border-b-4 border-enamel-ink font-semibold' : 'border-b-4 border-transparent'}`
                            }
                        >
                            {text}
                        </NavLink>
                    ))}
                    <span className="flex-1" />
                    <button
                        type="button"
                        className="min-h-11 px-3"
                        onClick={() => setLight(light === 'on' ? 'off' : 'on')}
                    >
                        {light === 'on' ? 'Dark' : 'Light'}
                    </button>
                    <button type="button" className="min-h-11 px-3" onClick={() => setHelp(true)}>
                        Keys ?
                    </button>
                </nav>
            </header>
            <main
                id="work"
                tabIndex={-1}
                className="mx-auto max-w-7xl px-4 py-4 outline-none"
                key={path.split('/').slice(0, 3).join('/')}
            >
                <ErrorBoundary>
                    <Suspense fallback={<Loading what="the page" />}>
                        <Routes>
                            <Route path="/" element={<Yard />} />
                            <Route path="/units" element={<Units />} />
                            <Route path="/units/:number/label" element={<Label />} />
                            <Route path="/units/:number/quote" element={<Quote />} />
                            <Route path="/units/:number/compare" element={<ComparePage />} />
                            <Route path="/units/:number/sheet" element={<Sheet />} />
                            <Route path="/units/:number/:section?" element={<UnitCard />} />
                            <Route path="/receive" element={<Receive />} />
                            <Route path="/receive/pallet" element={<Pallet />} />
                            <Route path="/interchange" element={<Interchange />} />
                            <Route path="/trainer" element={<Trainer />} />
                            <Route path="/cores-owed" element={<Balances />} />
                            <Route path="/cores-owed/:code" element={<Statement />} />
                            <Route path="/catalog/desk" element={<CatalogDesk />} />
                            <Route path="/power/:family?" element={<Power />} />
                            <Route path="/stock" element={<Stock />} />
                            <Route path="/lots/:lot" element={<Lot />} />
                            <Route path="/catalog" element={<Families />} />
                            <Route path="/insight" element={<Insight />} />
                            <Route path="/calculators" element={<Calculators />} />
                            <Route path="/house-rules" element={<HouseRules />} />
                            <Route
                                path="*"
                                element={
                                    <p className="sheet p-6">
                                        There is no page at this address. The scan line above finds units, parts and
                                        customers.
                                    </p>
                                }
                            />
                        </Routes>
                    </Suspense>
                </ErrorBoundary>
            </main>
            <Dialog open={help} onClose={setHelp} className="relative z-30">
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
                        <button type="button" className="btn" onClick={() => setHelp(false)}>
                            Close
                        </button>
                    </DialogPanel>
                </div>
            </Dialog>
        </div>
    );
}
