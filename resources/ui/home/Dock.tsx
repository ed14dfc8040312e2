import { Link } from 'react-router';

/** The receiver's first action: a core stands on the floor and wants to be taken in. */
export function Dock() {
    return (
        <div className="flex flex-wrap gap-3">
            <Link to="/receiving" className="btn btn-main min-h-16 flex-1 text-2xl">
                Receive a core
            </Link>
            <Link to="/receiving/pallet" className="btn min-h-16 text-xl">
                A pallet of cores
            </Link>
            <Link to="/interchange" className="btn min-h-16 text-xl">
                What does this VIN take
            </Link>
        </div>
    );
}
