import { useState } from 'react';
import { Field } from '../kit/basics';
import { Speak } from './Spoken';
import { PROOF_FORM, type Move, type Operation } from './types';

type Props = {
    operation: Operation | null;
    next: Operation | null;
    editable: boolean;
    busy: boolean;
    all: boolean;
    onAll: () => void;
    onMove: (what: Move, note: string) => void;
    onSound: (sound: Blob) => void;
    onPhoto: (photo: Blob) => void;
};

const ASKS: Partial<Record<Move, string>> = {
    undo: 'Why is it undone?',
    jam: 'What jams?',
    note: 'Note',
    pause: 'Left how? (torqued to the second stage, one snap ring to go)',
};

/** What the thumb needs, always at the same place. */
export function Actions(props: Props) {
    const { operation, editable, busy, onMove } = props;
    const [asking, setAsking] = useState<Move | null>(null);
    const asks = editable && operation && asking ? ASKS[asking] : undefined;
    return (
        <div className="sticky bottom-0 z-5 mt-auto flex flex-wrap items-end gap-2 border-t-2 border-edge bg-paper p-2 no-print">
            {asks && asking ? (
                <Asked
                    asks={asks}
                    busy={busy}
                    onBack={() => setAsking(null)}
                    onSay={(note) => {
                        onMove(asking, note);
                        setAsking(null);
                    }}
                />
            ) : (
                <Buttons {...props} onAsk={setAsking} />
            )}
        </div>
    );
}

type AskedProps = { asks: string; busy: boolean; onBack: () => void; onSay: (note: string) => void };

function Asked({ asks, busy, onBack, onSay }: AskedProps) {
    const [note, setNote] = useState('');
    return (
        <>
            <Field
                className="flex-1"
                label={asks}
                value={note}
                onChange={setNote}
                autoFocus
                onEnter={() => onSay(note)}
            />
            <button type="button" className="btn" onClick={onBack}>
                Back
            </button>
            <button type="button" className="btn btn-main" disabled={busy} onClick={() => onSay(note)}>
                Write it down
            </button>
        </>
    );
}

function Buttons({ operation: o, next, editable, busy, all, onAll, onAsk, ...on }: Props & Pick<MovesProps, 'onAsk'>) {
    return (
        <>
            {editable && o && <Moves operation={o} busy={busy} onAsk={onAsk} {...on} />}
            <button type="button" className="btn min-h-14" aria-pressed={all} onClick={onAll}>
                {all ? 'One step' : 'All steps'}
            </button>
            {editable && !all && o?.state === 'open' && (
                <button
                    type="submit"
                    form={PROOF_FORM}
                    disabled={busy}
                    className="btn btn-main min-h-14 flex-1 justify-between text-xl"
                >
                    Right, next {next && <span className="text-base">then: {next.name} ▶</span>}
                </button>
            )}
        </>
    );
}

type MovesProps = {
    operation: Operation;
    busy: boolean;
    onAsk: (m: Move) => void;
    onMove: (m: Move, note: string) => void;
    onSound: (sound: Blob) => void;
    onPhoto: (photo: Blob) => void;
};

function Moves({ operation: o, busy, onAsk, onMove, onSound, onPhoto }: MovesProps) {
    const button = (text: string, press: () => void) => (
        <button type="button" className="btn min-h-14" disabled={busy} onClick={press}>
            {text}
        </button>
    );
    if (o.state === 'done') return button('Undo', () => onAsk('undo'));
    if (o.state === 'jammed') return button('It came free', () => onMove('free', ''));
    return (
        <>
            {o.activity === 'running' && button('Set it down', () => onAsk('pause'))}
            {button('It will not go', () => onAsk('jam'))}
            {button('Note', () => onAsk('note'))}
            <Photo onPhoto={onPhoto} />
            <Speak key={o.code} busy={busy} onSound={onSound} />
        </>
    );
}

/** A picture of the work, beside what must be proven. */
function Photo({ onPhoto }: { onPhoto: (photo: Blob) => void }) {
    return (
        <label className="btn min-h-14 cursor-pointer">
            Photo
            <input
                type="file"
                accept="image/*"
                capture="environment"
                className="sr-only"
                onChange={(e) => {
                    const photo = e.target.files?.[0];
                    if (photo) onPhoto(photo);
                    e.target.value = '';
                }}
            />
        </label>
    );
}
