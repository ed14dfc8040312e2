import { code128 } from 'bwip-js/browser';
import { useEffect, useRef } from 'react';

/** A Code 128 barcode with its text below. */
export function Barcode({ text, height = 14 }: { text: string; height?: number }) {
    const canvas = useRef<HTMLCanvasElement>(null);
    useEffect(() => {
        if (canvas.current)
            code128(canvas.current, {
                bcid: 'code128',
                text,
                scale: 3,
                height,
                includetext: true,
                textxalign: 'center',
                backgroundcolor: 'FFFFFF',
                paddingwidth: 4,
                paddingheight: 2,
            });
    }, [text, height]);
    return <canvas ref={canvas} aria-label={`Barcode ${text}`} role="img" className="max-w-full bg-white" />;
}
