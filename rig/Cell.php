<?php

declare(strict_types=1);

namespace Yard\Rig;

/**
 * What goes on in the test cell between two ends of a cable: a run with its orders, and the journal that every sample
 * is written to before it is sent, so that a cable pulled for a moment loses none.
 */
final class Cell
{
    /** A cable that is away for longer ends the run, seconds by the clock. */
    private const PATIENCE_S = 2.0;

    /** The other end is plugged in and says nothing, not even that it wrote down what came: nobody watches the unit. */
    private const UNHEARD_S = 5.0;

    /** A pump that has not drawn after so many seconds draws air; the line stands at this share of what is asked. */
    private const PRIMES_S = 10.0;

    private const STANDS = 0.25;

    /** Samples in one message. */
    private const MOST_ROWS = 100;

    /** Nothing is journalled beyond this, whatever the program says, seconds of the run. */
    private const LONGEST_S = 3_600.0;

    private ?Rig $rig = null;

    private string $run = '';

    private float $end = 0.0;

    private float $startedAt = 0.0;

    private ?float $aloneSince = null;

    private float $heardAt = 0.0;

    private bool $emergency = false;

    /** Number of the next sample. */
    private int $next = 0;

    /** Number of the first sample the other end has not acknowledged. */
    private int $sent = 0;

    /** @var list<array{float, int, array<string, mixed>}> time, number, order; still to be done */
    private array $orders = [];

    /** @var resource|null */
    private $journal = null;

    /** @var array<int, int> sample => where its line begins in the journal, every hundredth */
    private array $places = [];

    private ?string $over = null;

    /** @var array<string, float> serial => litres in the unit */
    private array $filled = [];

    /** @var array<string, bool> serial => its pump has drawn */
    private array $primed = [];

    /** @param  float  $pace  seconds of the run a second by the clock */
    public function __construct(
        private readonly string $state,
        private readonly string $specimens,
        private readonly float $pace,
    ) {
    }

    /** @return array<string, mixed> */
    public function hello(): array
    {
        return [
            'type' => 'hello',
            'rig' => 'simulated',
            'version' => 2,
            'pace' => $this->pace,
            'rate_hz' => Rig::RATE_HZ,
            'channels' => Rig::CHANNELS,
            'run' => $this->rig === null ? null : $this->run,
            'emergency' => $this->emergency,
        ];
    }

    public function runs(): bool
    {
        return $this->rig !== null;
    }

    /**
     * One message from the other end.
     *
     * @param  array<string, mixed>  $message
     * @return list<array<string, mixed>> answers
     */
    public function hear(array $message): array
    {
        $this->heardAt = microtime(true);
        $message += ['type' => '', 'seq' => -1, 'run' => '', 'after' => -1];
        try {
            return match ($message['type']) {
                'fill', 'prime', 'start' => $this->mounted($message),
                'order' => $this->order($message),
                'ack' => $this->acknowledged((int) $message['seq']),
                'resume' => $this->resume((string) $message['run'], (int) $message['after']),
                'end' => $this->endAt((float) ($message['at'] ?? INF)),
                'abort' => $this->stop('aborted'),
                default => [['type' => 'error', 'message' => 'The message was not understood.']],
            };
        } catch (\InvalidArgumentException $e) {
            return [['type' => 'error', 'message' => $e->getMessage()]];
        }
    }

    /**
     * What is done with the unit before it turns under the program, and that it does.
     *
     * @param  array<string, mixed>  $m
     * @return list<array<string, mixed>>
     */
    private function mounted(array $m): array
    {
        if ($this->rig !== null) {
            return [['type' => 'error', 'code' => 'busy', 'message' => "Run $this->run is on the rig."]];
        }
        if ($this->emergency) {
            throw new \InvalidArgumentException('The emergency stop is pressed; release it at the rig.');
        }

        return match ($m['type']) {
            'fill' => $this->fill($m),
            'prime' => $this->prime($m),
            default => $this->start($m),
        };
    }

    /**
     * @param  array<string, mixed>  $m
     * @return list<array<string, mixed>>
     */
    private function start(array $m): array
    {
        [$run, $end, $serial] = self::asked($m);
        $specimen = $this->specimen($serial);
        if (self::needs($specimen) > 0.0 && ! isset($this->primed[$serial])) {
            throw new \InvalidArgumentException('The unit was not filled and primed: it would run dry.');
        }
        $faults = Faults::in($this->state);
        $seed = $faults->seed($serial) ?? crc32("$serial/$run") & 0x7FFFFFFF;
        $rig = new Rig(new Built($specimen, $faults->of($serial)), $seed, $this->level($serial, $specimen));
        $journal = $this->journal($run);
        [$this->rig, $this->run, $this->end, $this->journal] = [$rig, $run, $end, $journal];
        [$this->next, $this->sent, $this->places, $this->orders, $this->over] = [0, 0, [], [], null];
        [$this->startedAt, $this->aloneSince] = [microtime(true), null];
        $this->write($rig->read());

        return [['type' => 'started', 'run' => $run]];
    }

    /** @param  array<string, mixed>  $specimen */
    private static function needs(array $specimen): float
    {
        return (float) ($specimen['fluid_l'] ?? 0.0);
    }

    /**
     * @param  array<string, mixed>  $specimen
     * @return float share of its oil that is in it
     */
    private function level(string $serial, array $specimen): float
    {
        return self::needs($specimen) > 0.0 ? ($this->filled[$serial] ?? 0.0) / self::needs($specimen) : 1.0;
    }

    /**
     * Brings the oil in the unit to so many litres.
     *
     * @param  array<string, mixed>  $m
     * @return list<array<string, mixed>>
     */
    private function fill(array $m): array
    {
        $serial = (string) ($m['serial'] ?? '');
        $most = 1.5 * self::needs($this->specimen($serial));
        $litres = is_numeric($m['litres'] ?? null) ? (float) $m['litres'] : -1.0;
        if ($litres < 0.0 || $litres > $most) {
            throw new \InvalidArgumentException(sprintf('From 0 to %.1f litres go into this unit.', $most));
        }
        $this->filled[$serial] = $litres;
        unset($this->primed[$serial]);

        return [['type' => 'filled', 'litres' => $litres]];
    }

    /**
     * Turns the pump slowly in park until the line stands.
     *
     * @param  array<string, mixed>  $m
     * @return list<array<string, mixed>>
     */
    private function prime(array $m): array
    {
        $serial = (string) ($m['serial'] ?? '');
        $specimen = $this->specimen($serial);
        $built = new Built($specimen, Faults::in($this->state)->of($serial));
        $rig = new Rig($built, 1, $this->level($serial, $specimen));
        $rig->order(['gear' => 'P', 'throttle' => 0.0]);
        while ($rig->time < self::PRIMES_S && $rig->line() < self::STANDS * $specimen['pressure']['idle_kpa']) {
            $rig->sample();
        }
        if ($rig->time >= self::PRIMES_S) {
            throw new \InvalidArgumentException(sprintf(
                'The pump does not draw: %.1f of %.1f litres are in the unit, and the line stands at %.0f kPa.',
                $this->filled[$serial] ?? 0.0,
                self::needs($specimen),
                $rig->line(),
            ));
        }
        $this->primed[$serial] = true;

        return [['type' => 'primed', 'seconds' => round($rig->time, 2), 'line_kpa' => round($rig->line(), 1)]];
    }

    /** @return resource */
    private function journal(string $run)
    {
        @mkdir("$this->state/journal", 0775, true);
        $journal = @fopen("$this->state/journal/$run.csv", 'w+');

        return $journal === false
            ? throw new \InvalidArgumentException('The journal cannot be written: the disk may be full.')
            : $journal;
    }

    /**
     * @param  array<string, mixed>  $m
     * @return array{string, float, string} run, its end and the serial number of the unit
     */
    private static function asked(array $m): array
    {
        $m += ['run' => '', 'end_s' => 0.0, 'serial' => ''];
        [$run, $end] = [(string) $m['run'], (float) $m['end_s']];
        if (preg_match('/^[\w.-]{1,40}$/', $run) !== 1 || $end <= 0.0 || $end > self::LONGEST_S) {
            throw new \InvalidArgumentException('A run needs a name and an end within the hour.');
        }

        return [$run, $end, (string) $m['serial']];
    }

    /** @return array<string, mixed> the file of the unit that stands on the rig */
    private function specimen(string $serial): array
    {
        $file = $this->specimens.'/'.preg_replace('/[^\w.-]/', '_', $serial).'.json';
        $specimen = is_file($file) ? json_decode((string) file_get_contents($file), true) : null;

        return is_array($specimen)
            ? $specimen
            : throw new \InvalidArgumentException("No unit \"$serial\" stands on the rig.");
    }

    /**
     * @param  array<string, mixed>  $m
     * @return list<array<string, mixed>>
     */
    private function order(array $m): array
    {
        $order = array_diff_key($m, ['type' => 0, 'n' => 0]);
        $this->orders[] = [(float) ($m['at'] ?? 0.0), (int) ($m['n'] ?? 0), $order];

        return [];
    }

    /** @return list<array<string, mixed>> */
    private function acknowledged(int $seq): array
    {
        $this->sent = max($this->sent, min($this->next, $seq + 1));

        return [];
    }

    /** @return list<array<string, mixed>> */
    private function resume(string $run, int $after): array
    {
        if ($this->journal === null || $run !== $this->run) {
            throw new \InvalidArgumentException('That run is not on the rig any more.');
        }
        $this->aloneSince = null;
        $this->sent = $after + 1;

        return [['type' => 'resumed', 'run' => $run, 'after' => $after]];
    }

    /**
     * A program that waited less long than it might have ends earlier.
     *
     * @return list<array<string, mixed>>
     */
    private function endAt(float $at): array
    {
        $this->end = max($this->rig->time ?? 0.0, min($this->end, $at));

        return [];
    }

    /** @return list<array<string, mixed>> */
    private function stop(string $why): array
    {
        $this->over = $why;
        $this->rig = null;

        return [];
    }

    /** The red button at the rig itself: it asks nobody, and nothing turns until it is released. */
    public function emergency(bool $pressed): void
    {
        $this->emergency = $pressed;
        $pressed && $this->rig !== null && $this->stop('emergency');
    }

    /** The cable is out: the run goes on for a moment, then the rig comes to a stop by itself. */
    public function alone(): void
    {
        $this->aloneSince ??= microtime(true);
    }

    /**
     * Brings the run up to the clock and hands out what is to be sent.
     *
     * @return list<array<string, mixed>>
     */
    public function tick(): array
    {
        $out = [];
        if ($this->aloneSince !== null && microtime(true) - $this->aloneSince > self::PATIENCE_S) {
            $this->stop('cable');
            $this->close();

            return [];
        }
        if ($this->rig !== null && $this->aloneSince === null && microtime(true) - $this->heardAt > self::UNHEARD_S) {
            $this->stop('unheard');
        }
        $until = min($this->end, (microtime(true) - $this->startedAt) * $this->pace);
        for ($k = 0; $this->rig !== null && $k < self::MOST_ROWS && $this->rig->time < $until - 1e-6; $k++) {
            foreach ($this->due($this->rig) as $done) {
                $out[] = $done;
            }
            $this->write($this->rig->sample());
        }
        if ($this->rig !== null && $this->rig->time >= $this->end - 1e-6) {
            $this->stop('end');
        }

        return $this->aloneSince === null ? [...$out, ...$this->unsent()] : [];
    }

    /** @return list<array<string, mixed>> */
    private function due(Rig $rig): array
    {
        $out = [];
        foreach ($this->orders as $k => [$at, $n, $order]) {
            if ($at > $rig->time + 1e-6) {
                continue;
            }
            unset($this->orders[$k]);
            try {
                $rig->order($order);
                $out[] = ['type' => 'did', 'n' => $n, 't' => round($rig->time, 4)];
            } catch (\InvalidArgumentException $e) {
                $out[] = ['type' => 'error', 'n' => $n, 'message' => $e->getMessage()];
            }
        }
        $this->orders = array_values($this->orders);

        return $out;
    }

    /** @param  list<float>  $row */
    private function write(array $row): void
    {
        if ($this->journal === null) {
            return;
        }
        fseek($this->journal, 0, SEEK_END);
        if ($this->next % self::MOST_ROWS === 0) {
            $this->places[intdiv($this->next, self::MOST_ROWS)] = (int) ftell($this->journal);
        }
        fwrite($this->journal, implode(',', $row)."\n");
        fflush($this->journal);
        $this->next++;
    }

    /** @return list<array<string, mixed>> */
    private function unsent(): array
    {
        $out = [];
        while ($this->journal !== null && $this->sent < $this->next && count($out) < 20) {
            $first = $this->sent;
            $rows = $this->journalled($first, min($this->next, $first + self::MOST_ROWS));
            $this->sent += count($rows);
            $out[] = ['type' => 'samples', 'seq' => $first, 'rows' => $rows];
        }
        if ($this->over !== null && $this->journal !== null && $this->sent >= $this->next) {
            $out[] = ['type' => 'ended', 'run' => $this->run, 'why' => $this->over, 'samples' => $this->next];
            $this->over = null;
        }

        return $out;
    }

    /** @return list<list<float>> */
    private function journalled(int $from, int $to): array
    {
        $journal = $this->journal ?? throw new \LogicException('No run is journalled.');
        $block = intdiv($from, self::MOST_ROWS);
        fseek($journal, $this->places[$block]);
        $rows = [];
        for ($n = $block * self::MOST_ROWS; $n < $to; $n++) {
            $line = (string) fgets($journal);
            $n >= $from && ($rows[] = array_map(floatval(...), explode(',', $line)));
        }

        return $rows;
    }

    private function close(): void
    {
        $this->journal !== null && fclose($this->journal);
        [$this->journal, $this->aloneSince, $this->orders] = [null, null, []];
    }
}
