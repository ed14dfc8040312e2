<?php

declare(strict_types=1);

namespace Yard\Core\Life;

use Yard\Core\Input;

/** Times in service, each ended by a failure or still running. */
final readonly class Lives
{
    public const MOST = 100_000;

    /**
     * @param  list<float>  $times
     * @param  list<bool>  $failed
     */
    private function __construct(public array $times, public array $failed)
    {
    }

    /** Reads "times" and "events" (1 failed, 0 still in service) of one length. */
    public static function read(Input $in): self
    {
        $times = array_map(static fn (Input $t): float => $t->asNumber(min: 0.0), $in->list('times', 1));
        $events = array_map(static fn (Input $e): bool => $e->asInteger(0, 1) === 1, $in->list('events', 1));
        if (count($times) !== count($events)) {
            [$n, $m] = [count($times), count($events)];
            throw $in->at('events')->fail('length', "There are $n times and $m events; each time needs its event.");
        }
        if (count($times) > self::MOST) {
            throw $in->at('times')->fail('too-many', 'No more than '.self::MOST.' lives at once.');
        }

        return new self($times, $events);
    }

    public function failures(): int
    {
        return count(array_filter($this->failed));
    }

    public function longest(): float
    {
        return max([0.0, ...$this->times]);
    }

    /**
     * Who was at risk and who failed at every time of a failure; who left at that time counts as at risk.
     *
     * @return list<array{time: float, atRisk: int, events: int}> rising in time
     */
    public function table(): array
    {
        $failed = [];
        foreach ($this->times as $i => $time) {
            if ($this->failed[$i]) {
                $key = (string) $time;
                $failed[$key] = ['time' => $time, 'events' => ($failed[$key]['events'] ?? 0) + 1];
            }
        }
        usort($failed, static fn (array $a, array $b): int => $a['time'] <=> $b['time']);
        $sorted = $this->times;
        sort($sorted);
        $out = [];
        $gone = 0;
        foreach ($failed as ['time' => $time, 'events' => $events]) {
            while ($sorted[$gone] < $time) {
                $gone++;
            }
            $out[] = ['time' => $time, 'atRisk' => count($sorted) - $gone, 'events' => $events];
        }

        return $out;
    }
}
