import { useEffect, useRef } from 'react';
import uPlot from 'uplot';
import 'uplot/dist/uPlot.min.css';

export type TraceData = { t: number[]; input: number[]; turbine: number[]; output: number[]; line: number[] };
export type ShiftMark = { from: string; to: string; start_s: number; end_s: number };

/** Speeds and line pressure over time, with the shifts found marked as bands. */
export function TraceChart({ data, shifts = [], label }: { data: TraceData; shifts?: ShiftMark[]; label: string }) {
    const host = useRef<HTMLDivElement>(null);
    const plot = useRef<uPlot | null>(null);
    const marks = useRef(shifts);
    useEffect(() => {
        if (!host.current) return;
        const css = getComputedStyle(document.documentElement);
        const color = (name: string) => css.getPropertyValue(name).trim();
        const axis = {
            stroke: color('--ink'),
            grid: { stroke: color('--rule'), width: 0.5 },
            ticks: { stroke: color('--rule') },
            font: '13px Barlow',
            labelFont: '600 13px Barlow',
        };
        const chart = new uPlot(
            {
                width: host.current.clientWidth,
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
                hooks: {
                    drawClear: [
                        (u) => {
                            for (const s of marks.current) {
                                const [a, b] = [u.valToPos(s.start_s, 'x', true), u.valToPos(s.end_s, 'x', true)];
                                u.ctx.fillStyle = color('--rule');
                                u.ctx.globalAlpha = 0.6;
                                u.ctx.fillRect(a, u.bbox.top, Math.max(2, b - a), u.bbox.height);
                                u.ctx.globalAlpha = 1;
                                u.ctx.fillStyle = color('--ink');
                                u.ctx.font = `${13 * devicePixelRatio}px Barlow`;
                                u.ctx.fillText(`${s.from}-${s.to}`, a + 6, u.bbox.top + 16 * devicePixelRatio);
                            }
                        },
                    ],
                },
            },
            [[0], [0], [0], [0], [0]],
            host.current,
        );
        plot.current = chart;
        const watcher = new ResizeObserver(
            () => host.current && chart.setSize({ width: host.current.clientWidth, height: 300 }),
        );
        watcher.observe(host.current);
        return () => {
            watcher.disconnect();
            chart.destroy();
        };
    }, []);
    useEffect(() => {
        marks.current = shifts;
        plot.current?.setData([data.t, data.input, data.turbine, data.output, data.line]);
    }, [data, shifts]);
    return <div ref={host} role="img" aria-label={label} className="w-full" />;
}
