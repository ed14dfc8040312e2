import { useRef, useState, type PointerEvent, type RefObject } from 'react';
import type { Box } from './section';

type Point = { x: number; y: number };
type Look = { zoom: number; at: Point };

const MOST = 6;
const STEP = 1.4;
const WHEEL = 0.0015;

const within = (zoom: number) => Math.max(1, Math.min(MOST, zoom));

/** The same look with the point under the hand staying where it is. */
export function nearer(look: Look, zoom: number, hand: Point): Look {
    const to = within(zoom);
    const share = look.zoom / to;
    return {
        zoom: to,
        at: { x: hand.x + (look.at.x - hand.x) * share, y: hand.y + (look.at.y - hand.y) * share },
    };
}

export const boxOfLook = (view: Box, { zoom, at }: Look): Box => {
    const [w, h] = [view.w / zoom, view.h / zoom];
    return { x: at.x - w / 2, y: at.y - h / 2, w, h };
};

const middle = (view: Box): Point => ({ x: view.x + view.w / 2, y: view.y + view.h / 2 });

const between = (a: Point, b: Point): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });

/** What fingers do on the picture: one moves it, two come nearer. */
function useFingers(onMove: (from: Point, to: Point) => void, onPinch: (by: number, hand: Point) => void) {
    const fingers = useRef(new Map<number, Point>());
    const lift = (e: PointerEvent) => void fingers.current.delete(e.pointerId);
    const onPointerMove = (e: PointerEvent) => {
        const before = fingers.current.get(e.pointerId);
        if (!before) return;
        const here = { x: e.clientX, y: e.clientY };
        const other = [...fingers.current].find(([id]) => id !== e.pointerId)?.[1];
        fingers.current.set(e.pointerId, here);
        if (!other) return onMove(before, here);
        const [was, is] = [apart(before, other), apart(here, other)];
        onPinch(is / Math.max(1, was), between(here, other));
    };
    return {
        onPointerDown: (e: PointerEvent) => void fingers.current.set(e.pointerId, { x: e.clientX, y: e.clientY }),
        onPointerMove,
        onPointerUp: lift,
        onPointerCancel: lift,
        onPointerLeave: lift,
    };
}

const apart = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);

/** Comes nearer by fingers, wheel and keys, and moves the picture by a finger; double touch fits it again. */
export function useZoom(svg: RefObject<SVGSVGElement | null>, view: Box, home: Point | null) {
    const [look, setLook] = useState<Look | null>(null);
    const now = look ?? { zoom: 1, at: middle(view) };

    /** A point of the screen in the drawing's own measure. */
    const placeOf = (screen: Point): Point => {
        const matrix = svg.current?.getScreenCTM()?.inverse();
        return matrix ? { x: matrix.a * screen.x + matrix.e, y: matrix.d * screen.y + matrix.f } : now.at;
    };
    const zoomAt = (by: number, hand: Point) => {
        const next = nearer(now, now.zoom * by, hand);
        setLook(next.zoom === 1 ? null : next);
    };
    const move = (before: Point, here: Point) => {
        if (!look) return;
        const [from, to] = [placeOf(before), placeOf(here)];
        setLook({ ...look, at: { x: look.at.x - (to.x - from.x), y: look.at.y - (to.y - from.y) } });
    };
    return {
        box: boxOfLook(view, now),
        isNear: look !== null,
        fit: () => setLook(null),
        byKey: (key: string) => {
            if (key === '+') zoomAt(STEP, look ? now.at : (home ?? now.at));
            if (key === '-') zoomAt(1 / STEP, now.at);
        },
        byWheel: (e: WheelEvent) => zoomAt(Math.exp(-e.deltaY * WHEEL), placeOf({ x: e.clientX, y: e.clientY })),
        hands: useFingers(move, (by, hand) => zoomAt(by, placeOf(hand))),
    };
}
