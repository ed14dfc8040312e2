import { useEffect, useRef } from 'react';
import uPlot from 'uplot';
import 'uplot/dist/uPlot.min.css';

export type TraceData = { t: number[]; input: number[]; turbine: number[]; output: number[]; line: number[] };
/** A stretch of the run that has a name. */
export type TraceMark = { text: string; start_s: number; end_s: number };

type Colour = (name: string) => string;

const themeColour = (): Colour => {
    const css = getComputedStyle(document.documentElement);
    return (name) => css.getPropertyValue(name).trim();
};

/** A band under each stretch, with its name at the top. */
function drawMarks(u: uPlot, marks: TraceMark[], color: Colour) {
    for (const s of marks) {
        const [a, b] = [u.valToPos(s.start_s, 'x', true), u.valToPos(s.end_s, 'x', true)];
        u.ctx.fillStyle = color('--rule');
        u.ctx.globalAlpha = 0.6;
        u.ctx.fillRect(a, u.bbox.top, Math.max(2, b - a), u.bbox.height);
        u.ctx.globalAlpha = 1;
        u.ctx.fillStyle = color('--ink');
        u.ctx.font = `${13 * devicePixelRatio}px Barlow`;
        u.ctx.fillText(s.text, a + 6, u.bbox.top + 16 * devicePixelRatio);
    }
}

/** Speeds on the left, line pressure on the right. */
function optionsOf(width: number, color: Colour, marks: () => TraceMark[]): uPlot.Options {
    const axis = {
        stroke: color('--ink'),
        grid: { stroke: color('--rule'), width: 0.5 },
        ticks: { stroke: color('--rule') },
        font: '13px Barlow',
        labelFont: '600 13px Barlow',
    };
    return {
        width,
        height: 300,
        legend: { live: false },
        cursor: { drag: { x: true, y: false } },
        scales: { x: { time: false }, rpm: {}, kPa: { range: [0, 2000] } },
        axes: [
            { ...axis, label: 'seconds' },
            { ...axis, scale: 'rpm', label: 'rev/min' },
            { ...axis, scale: 'kPa', side: 1, label: 'line, kPa', grid: { show: false } },
        ],
        series: [
            {},
            { label: 'input', scale: 'rpm', stroke: color('--faint'), width: 1 },
            { label: 'turbine', scale: 'rpm', stroke: color('--hand'), width: 2 },
            { label: 'output', scale: 'rpm', stroke: color('--good'), width: 2, dash: [8, 3] },
            { label: 'line pressure', scale: 'kPa', stroke: color('--warn'), width: 1, dash: [2, 3] },
        ],
        hooks: { drawClear: [(u) => drawMarks(u, marks(), color)] },
    };
}

/** Speeds and line pressure over time, with what was found in it marked as bands. */
export function TraceChart({ data, marks, label }: { data: TraceData; marks: TraceMark[]; label: string }) {
    const host = useRef<HTMLDivElement>(null);
    const plot = useRef<uPlot | null>(null);
    const drawn = useRef(marks);
    useEffect(() => {
        const element = host.current;
        if (!element) return;
        const options = optionsOf(element.clientWidth, themeColour(), () => drawn.current);
        const chart = new uPlot(options, [[0], [0], [0], [0], [0]], element);
        plot.current = chart;
        const watcher = new ResizeObserver(() => chart.setSize({ width: element.clientWidth, height: 300 }));
        watcher.observe(element);
        return () => {
            watcher.disconnect();
            chart.destroy();
        };
    }, []);
    useEffect(() => {
        drawn.current = marks;
        plot.current?.setData([data.t, data.input, data.turbine, data.output, data.line]);
    }, [data, marks]);
    return <div ref={host} role="img" aria-label={label} className="w-full" />;
}
