import type { ReactNode } from 'react';

/** How far a part has gone, as the shop's own drawings tell it. */
export const STATES = ['good', 'borderline', 'scrap'] as const;
type PartState = (typeof STATES)[number];

type Drawn = (state: PartState) => ReactNode;

const METAL = 'var(--steel)';
const INK = 'currentColor';
const HEAT = 'var(--warn)';
const BAD = 'var(--bad)';
const at = (r: number, degrees: number): [number, number] => [
    50 + r * Math.cos((degrees * Math.PI) / 180),
    50 + r * Math.sin((degrees * Math.PI) / 180),
];
const round = (count: number, draw: (degrees: number, n: number) => ReactNode) =>
    Array.from({ length: count }, (_, n) => draw((360 / count) * n, n));
const spokes = (count: number, from: number, to: number, stroke: string, width = 1) =>
    round(count, (a) => {
        const [[x1, y1], [x2, y2]] = [at(from, a), at(to, a)];
        return <line key={a} {...{ x1, y1, x2, y2, stroke }} strokeWidth={width} />;
    });
const ring = (r: number, width: number, stroke: string, dash?: string) => (
    <circle cx="50" cy="50" r={r} fill="none" stroke={stroke} strokeWidth={width} strokeDasharray={dash} />
);
const crack = (d: string) => <path d={d} fill="none" stroke={BAD} strokeWidth="2.5" strokeLinejoin="round" />;

/** A flat ring with its two edges. */
const disc = (r: number, width: number, fill: string) => (
    <>
        {ring(r, width + 2, INK)}
        {ring(r, width, fill)}
    </>
);

/** A lined plate: grooves to be seen; grooves gone and edge dark; lining lifted off to bare steel. */
const friction: Drawn = (s) => (
    <>
        {disc(34, 16, s === 'good' ? '#9a7b4f' : s === 'borderline' ? '#5d4a33' : METAL)}
        {s !== 'scrap' && spokes(18, 26, 42, s === 'good' ? '#6f5735' : '#4a3a27', 1.5)}
        {s === 'borderline' && ring(40, 4, '#33291d')}
        {s === 'scrap' && (
            <>
                {ring(34, 15, '#3b3027', '20 34')}
                {crack('M78 36 L66 42 L72 50 L62 55')}
            </>
        )}
        {spokes(12, 42, 46, INK, 3)}
    </>
);

/** A steel plate: bright; blue in one sector; hot spots all round. */
const steel: Drawn = (s) => (
    <>
        {disc(34, 14, METAL)}
        {s === 'borderline' && ring(34, 14, '#4f6d9a', '40 174')}
        {s === 'scrap' &&
            round(9, (a) => {
                const [x, y] = at(34, a);
                return <circle key={a} cx={x} cy={y} r="5" fill="#2d3f66" />;
            })}
        {spokes(9, 41, 47, INK, 4)}
    </>
);

/** A band, lining outwards: dark at the ends; through to the strap. */
const band: Drawn = (s) => (
    <>
        {ring(36, 4, INK, '205 30')}
        {ring(31, 6, s === 'good' ? '#9a7b4f' : '#5d4a33', s === 'scrap' ? '60 14 40 60' : '178 40')}
    </>
);

const zigzag = (x: number, height: number): string =>
    Array.from({ length: 5 }, (_, n) => `L${x + (n % 2 ? -7 : 7)} ${78 - (height / 5) * (n + 1)}`).join(' ');

const coil = (x: number, height: number, stroke = INK) => (
    <path key={x} d={`M${x - 7} 78 ${zigzag(x, height)}`} fill="none" stroke={stroke} strokeWidth="3" />
);

const spring: Drawn = (s) => (
    <>
        <line x1="12" y1="80" x2="88" y2="80" stroke={METAL} strokeWidth="4" />
        {coil(26, 44)}
        {coil(50, s === 'borderline' ? 32 : 44, s === 'borderline' ? HEAT : INK)}
        {s === 'scrap' ? (
            <>
                {coil(74, 16, BAD)}
                <path d="M68 52 L80 44" stroke={BAD} strokeWidth="3" />
            </>
        ) : (
            coil(74, 44)
        )}
    </>
);

/** A waved plate from its edge. */
const wave: Drawn = (s) => (
    <>
        <path
            d={s === 'good' ? 'M8 54 Q22 34 36 54 T64 54 T92 54' : 'M8 52 Q22 48 36 52 T64 52 T92 52'}
            fill="none"
            stroke={s === 'borderline' ? HEAT : INK}
            strokeWidth="5"
        />
        <line x1="8" y1="64" x2="92" y2="64" stroke={METAL} strokeWidth="2" />
        {s === 'scrap' && crack('M48 40 L52 48 L46 54 L52 62')}
    </>
);

const needle: Drawn = (s) => (
    <>
        {ring(38, 3, INK)}
        {ring(22, 3, INK)}
        {round(18, (a, n) => {
            if (s === 'scrap' && (n === 3 || n === 4 || n === 11)) return null;
            const [[x1, y1], [x2, y2]] = [at(25, a), at(35, a)];
            return <line key={a} {...{ x1, y1, x2, y2 }} stroke={METAL} strokeWidth="4" />;
        })}
        {s === 'borderline' && spokes(36, 19, 24, HEAT, 1)}
        {s === 'scrap' && crack('M78 62 L70 66 L74 72')}
    </>
);

/** A bush from its end: even, worn to one side, wiped through. */
const bush: Drawn = (s) => (
    <>
        {ring(36, 6, INK)}
        {ring(30, 8, s === 'good' ? '#b08d3f' : '#6d5a33')}
        <circle
            cx={s === 'good' ? 50 : s === 'borderline' ? 53 : 56}
            cy="50"
            r="25"
            fill="var(--sheet)"
            stroke={METAL}
        />
        {s === 'scrap' && ring(30, 8, BAD, '24 200')}
    </>
);

const toothed = (s: PartState, teeth: number, outside = true) => (
    <>
        {disc(32, 10, METAL)}
        {round(teeth, (a, n) => {
            const gone = s === 'scrap' && (n === 2 || n === 3);
            const [[x1, y1], [x2, y2]] = [at(outside ? 36 : 28, a), at(outside ? (gone ? 39 : 44) : gone ? 25 : 20, a)];
            return <line key={a} {...{ x1, y1, x2, y2 }} stroke={gone ? BAD : INK} strokeWidth="6" />;
        })}
        {s === 'borderline' &&
            round(10, (a) => {
                const [x, y] = at(40, a + 8);
                return <circle key={a} cx={x} cy={y} r="1.6" fill={HEAT} />;
            })}
    </>
);

const gear: Drawn = (s) => toothed(s, 16);
const hub: Drawn = (s) => (
    <>
        {toothed(s === 'scrap' ? 'good' : s, 12)}
        {s === 'borderline' && ring(40, 2, HEAT)}
        {s === 'scrap' && crack('M20 40 L34 46 L30 54 L44 60')}
    </>
);

const drum: Drawn = (s) => (
    <>
        <path d="M20 20 H80 V80 H20 Z" fill="none" stroke={INK} strokeWidth="4" />
        <path d="M20 34 H80 M20 42 H80" stroke={s === 'good' ? METAL : HEAT} strokeWidth={s === 'good' ? 2 : 4} />
        <path d="M20 66 H30 M70 66 H80" stroke={INK} strokeWidth="5" />
        {s === 'scrap' && crack('M80 60 L70 66 L76 72 L66 80')}
    </>
);

const shaft: Drawn = (s) => (
    <>
        <path d="M8 42 H34 V36 H70 V44 H92 V58 H70 V64 H34 V58 H8 Z" fill={METAL} stroke={INK} strokeWidth="2" />
        <path d="M12 42 V58 M18 42 V58 M24 42 V58" stroke={s === 'good' ? INK : HEAT} strokeWidth="2" />
        <path d="M44 36 V64 M50 36 V64" stroke={s === 'good' ? INK : HEAT} strokeWidth={s === 'good' ? 2 : 4} />
        {s === 'scrap' && <path d="M70 44 H92 V58 H70 Z" fill="#4f6d9a" stroke={BAD} strokeWidth="2" />}
    </>
);

const planet: Drawn = (s) => (
    <>
        {ring(40, 4, INK)}
        <circle cx="50" cy="50" r="12" fill={METAL} stroke={INK} />
        {round(3, (a) => {
            const [x, y] = at(26, a - 90);
            const hot = s === 'scrap' && a === 0;
            return (
                <g key={a}>
                    <circle cx={x} cy={y} r="12" fill={hot ? '#6a4f9a' : 'none'} stroke={INK} strokeWidth="3" />
                    <circle
                        cx={s === 'borderline' && a === 0 ? x + 4 : x}
                        cy={y}
                        r="3"
                        fill={s === 'good' ? INK : HEAT}
                    />
                </g>
            );
        })}
    </>
);

/** A lip or bonded seal in section. */
const lip: Drawn = (s) => (
    <>
        <path d="M18 26 H82 V40 H18 Z" fill={METAL} stroke={INK} strokeWidth="2" />
        <path
            d={s === 'good' ? 'M30 40 Q36 66 58 74 Q46 56 48 40 Z' : 'M30 40 Q34 60 48 70 Q44 56 48 40 Z'}
            fill={s === 'good' ? INK : HEAT}
        />
        {s === 'borderline' && (
            <path d="M34 46 L42 48 M35 54 L43 55 M39 62 L45 62" stroke="var(--sheet)" strokeWidth="2" />
        )}
        {s === 'scrap' && crack('M30 58 L40 54 L38 64 L52 60')}
    </>
);

/** A sealing or snap ring, with its gap. */
const gapped: Drawn = (s) => (
    <>
        {ring(
            34,
            s === 'borderline' ? 3 : 6,
            s === 'borderline' ? HEAT : INK,
            s === 'scrap' ? '70 12 100 60' : '206 8',
        )}
        {s === 'scrap' && crack('M60 18 L66 26 L60 30')}
    </>
);

const washer: Drawn = (s) => (
    <>
        {disc(32, 14, METAL)}
        {round(3, (a) => {
            const [x, y] = at(44, a - 90);
            return s === 'scrap' && a === 120 ? null : <circle key={a} cx={x} cy={y} r="5" fill={INK} />;
        })}
        {s !== 'good' && [28, 32, 36].map((r) => <g key={r}>{ring(r, 1, s === 'scrap' ? BAD : HEAT)}</g>)}
    </>
);

const pump: Drawn = (s) => (
    <>
        {toothed('good', 14, false)}
        <circle cx="46" cy="50" r="14" fill="none" stroke={INK} strokeWidth="3" />
        {s !== 'good' && [24, 29, 34].map((r) => <g key={r}>{ring(r, 1.5, s === 'scrap' ? BAD : HEAT)}</g>)}
    </>
);

const valve: Drawn = (s) => (
    <>
        <path d="M10 34 H90 M10 66 H90" stroke={METAL} strokeWidth="6" />
        <path
            d="M16 40 H34 V46 H46 V40 H64 V46 H76 V40 H84 V60 H76 V54 H64 V60 H46 V54 H34 V60 H16 Z"
            fill={METAL}
            stroke={INK}
            strokeWidth="2"
        />
        {s !== 'good' && (
            <path d="M18 44 H32 M18 50 H32 M48 44 H62 M48 52 H62" stroke={s === 'scrap' ? BAD : HEAT} strokeWidth="2" />
        )}
    </>
);

const race: Drawn = (s) => (
    <>
        {disc(34, 12, METAL)}
        {s !== 'good' &&
            round(s === 'scrap' ? 24 : 7, (a) => {
                const [x, y] = at(31, a);
                return <circle key={a} cx={x} cy={y} r="2" fill={s === 'scrap' ? BAD : HEAT} />;
            })}
    </>
);

const bore: Drawn = (s) => (
    <>
        <rect x="14" y="14" width="72" height="72" fill={METAL} stroke={INK} strokeWidth="2" />
        <ellipse
            cx="50"
            cy="50"
            rx={s === 'scrap' ? 28 : 24}
            ry="24"
            fill="var(--sheet)"
            stroke={INK}
            strokeWidth="2"
        />
        {s === 'borderline' && <path d="M34 40 V62 M40 34 V68" stroke={HEAT} strokeWidth="2" />}
        {s === 'scrap' && <circle cx="50" cy="50" r="24" fill="none" stroke={BAD} strokeDasharray="4 4" />}
    </>
);

const thread: Drawn = (s) => (
    <>
        <path d="M30 10 V90 M70 10 V90" stroke={INK} strokeWidth="3" />
        {Array.from({ length: 8 }, (_, n) => {
            const gone = s === 'scrap' && n > 4;
            const y = 14 + n * 10;
            return gone ? null : (
                <path
                    key={n}
                    d={`M30 ${y} L40 ${y + 5} L30 ${y + 10} M70 ${y} L60 ${y + 5} L70 ${y + 10}`}
                    fill="none"
                    stroke={s === 'borderline' && n < 2 ? HEAT : INK}
                    strokeWidth="2"
                />
            );
        })}
        {s === 'scrap' && crack('M32 66 L44 72 M68 66 L58 76')}
    </>
);

const plate: Drawn = (s) => (
    <>
        <rect x="12" y="20" width="76" height="60" fill={METAL} stroke={INK} strokeWidth="2" />
        {[26, 44, 62, 76].map((x, n) => (
            <circle
                key={x}
                cx={x}
                cy={n % 2 ? 40 : 62}
                r={s === 'borderline' && n === 1 ? 8 : 5}
                fill="var(--sheet)"
                stroke={s === 'borderline' && n === 1 ? HEAT : INK}
            />
        ))}
        {s === 'scrap' && <path d="M12 84 Q50 70 88 88" fill="none" stroke={BAD} strokeWidth="3" />}
    </>
);

const electric: Drawn = (s) => (
    <>
        <rect x="26" y="26" width="48" height="48" fill={METAL} stroke={INK} strokeWidth="2" />
        <path d="M38 26 V14 M62 26 V14" stroke={s === 'borderline' ? HEAT : INK} strokeWidth="4" />
        <path d="M34 38 H66 M34 46 H66 M34 54 H66" stroke={INK} strokeWidth="2" />
        {s === 'borderline' && <path d="M62 14 L72 10" stroke={HEAT} strokeWidth="4" />}
        {s === 'scrap' && <path d="M50 74 V92" stroke={BAD} strokeWidth="6" strokeDasharray="4 3" />}
    </>
);

const mesh: Drawn = (s) => (
    <>
        {[24, 36, 50, 64, 76].map((n) => (
            <path key={n} d={`M${n} 18 V82 M18 ${n} H82`} stroke={s === 'borderline' ? HEAT : INK} strokeWidth="2" />
        ))}
        {s === 'borderline' && <circle cx="44" cy="58" r="14" fill={HEAT} opacity="0.6" />}
        {s === 'scrap' && crack('M40 20 L52 44 L44 56 L58 80')}
    </>
);

const converter: Drawn = (s) => (
    <>
        <ellipse cx="50" cy="50" rx="38" ry="30" fill="none" stroke={INK} strokeWidth="4" />
        <rect
            x="44"
            y="8"
            width="12"
            height="18"
            fill={METAL}
            stroke={s === 'borderline' ? HEAT : INK}
            strokeWidth="3"
        />
        {s === 'scrap' &&
            round(14, (a) => {
                const [x, y] = at(8 + (a % 20), a);
                return <circle key={a} cx={x} cy={y} r="2" fill={BAD} />;
            })}
    </>
);

const casting: Drawn = (s) => (
    <>
        <path d="M14 80 V30 H34 V20 H66 V30 H86 V80 Z" fill={METAL} stroke={INK} strokeWidth="3" />
        {s === 'borderline' && <path d="M20 72 H80" stroke={HEAT} strokeWidth="3" strokeDasharray="3 4" />}
        {s === 'scrap' && crack('M34 30 L44 44 L38 52 L50 66')}
    </>
);

const pan: Drawn = (s) => (
    <>
        <path d="M8 40 H92 L82 76 H18 Z" fill="none" stroke={INK} strokeWidth="3" />
        <path d="M24 66 H76" stroke={s === 'good' ? METAL : HEAT} strokeWidth="6" />
        {s === 'borderline' && <path d="M34 58 l8 -4 M52 60 l9 -5 M66 56 l7 4" stroke={HEAT} strokeWidth="3" />}
        {s === 'scrap' && <path d="M34 60 l8 -10 l6 8 z M58 62 l9 -12 l5 10 z" fill={BAD} />}
    </>
);

const PICTURES: Record<string, Drawn> = {
    friction,
    steel,
    band,
    spring,
    wave,
    needle,
    bush,
    gear,
    hub,
    drum,
    shell: drum,
    shaft,
    planet,
    seal: lip,
    piston: lip,
    ring: gapped,
    'snap-ring': gapped,
    washer,
    pump,
    valve,
    race,
    'one-way': race,
    bore,
    thread,
    plate,
    solenoid: electric,
    connector: electric,
    screen: mesh,
    converter,
    case: casting,
    debris: pan,
};

export const isDrawn = (kind: string): boolean => kind in PICTURES;

/** What such a part looks like in a state: the product's own drawing, no photograph. */
export function PartPicture({
    kind,
    state,
    className = 'size-20',
}: {
    kind: string;
    state: PartState;
    className?: string;
}) {
    const draw = PICTURES[kind];
    if (!draw) return null;
    return (
        <svg
            viewBox="0 0 100 100"
            className={className}
            role="img"
            aria-label={`${kind.replaceAll('-', ' ')}, ${state}`}
        >
            {draw(state)}
        </svg>
    );
}
