import type { FunctionComponent } from 'react';
import type { ProofAsked, ProofProps } from '../types';
import { ConditionProof } from './Condition';
import { FitProof } from './Fit';
import { FreeProof } from './Free';
import { PhotoProof } from './Photo';
import { ReadingProof } from './Reading';
import { CountProof, DoneProof, OrientationProof, ScanProof, SignProof } from './Said';
import { TimerProof } from './Timer';
import { PatchProof, ToolProof } from './Tool';
import { ValuesProof } from './Values';

export const PROOFS: Record<ProofAsked['kind'], FunctionComponent<ProofProps>> = {
    done: DoneProof,
    count: CountProof,
    reading: ReadingProof,
    torque: ReadingProof,
    air: ReadingProof,
    fit: FitProof,
    metal: OrientationProof,
    orientation: OrientationProof,
    photo: PhotoProof,
    scan: ScanProof,
    timer: TimerProof,
    condition: ConditionProof,
    sign: SignProof,
    observation: OrientationProof,
    tool: ToolProof,
    patch: PatchProof,
    skilled: SignProof,
    values: ValuesProof,
    free: FreeProof,
};
