import { useSession } from '../api/session';
import { homesOf } from '../card/stations';
import { Dock } from './Dock';
import { ManagerDay } from './ManagerDay';
import { QueueView } from './QueueView';
import { YardPlan } from '../rooms/yard/YardPlan';

/** The first page of a badge: the manager's day, or what waits where its holder works. */
export function Home() {
    const { person } = useSession();
    const role = person?.role ?? 'viewer';
    if (role === 'manager') return <ManagerDay />;
    const stations = homesOf(role);
    if (stations.length === 0) return <YardPlan />;
    return (
        <div className="flex flex-col gap-4">
            {role === 'receiver' && <Dock />}
            {stations.map((s) => (
                <QueueView key={s.station} station={s.station} title={s.title} />
            ))}
        </div>
    );
}
