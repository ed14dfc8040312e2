<?php

declare(strict_types=1);

namespace Yard\Rig;

/** What was set at the rig's console: by unit, its faults and the seed of its noise. Kept in the rig's own folder. */
final class Faults
{
    /**
     * @param  array<string, array{seed?: int, faults: list<array{fault: string, where?: string,
     *     severity?: float}>}>  $set
     */
    private function __construct(private readonly string $file, private array $set)
    {
    }

    public static function in(string $state): self
    {
        $file = "$state/faults.json";
        $set = is_file($file) ? json_decode((string) file_get_contents($file), true) : [];

        return new self($file, is_array($set) ? $set : []);
    }

    /** @return list<array{fault: string, where?: string, severity?: float}> */
    public function of(string $serial): array
    {
        return $this->set[$serial]['faults'] ?? [];
    }

    public function seed(string $serial): ?int
    {
        return $this->set[$serial]['seed'] ?? null;
    }

    /** @return list<string> a line a unit */
    public function told(): array
    {
        $out = [];
        foreach ($this->set as $serial => $of) {
            $told = array_map(
                static fn (array $f): string => $f['fault'].(($f['where'] ?? '') === '' ? '' : " at $f[where]").
                    sprintf(' (severity %.2f)', $f['severity'] ?? 1.0),
                $of['faults'],
            );
            $out[] = "$serial: ".implode(', ', $told).(isset($of['seed']) ? ", seed $of[seed]" : '');
        }

        return $out;
    }

    /** @param  array{fault: string, where: string, severity: float}  $fault */
    public function set(string $serial, array $fault, ?int $seed): void
    {
        isset(Built::FAULTS[$fault['fault']])
            || throw new \InvalidArgumentException("There is no fault \"$fault[fault]\"; see: rig faults.");
        $needs = Built::FAULTS[$fault['fault']];
        ($needs === '') === ($fault['where'] === '') || throw new \InvalidArgumentException(
            $needs === '' ? "\"$fault[fault]\" sits nowhere in particular." : "\"$fault[fault]\" needs its $needs.",
        );
        $fault['severity'] > 0.0 && $fault['severity'] <= 1.0
            || throw new \InvalidArgumentException('A severity lies above 0 and up to 1.');
        $this->set[$serial]['faults'][] = $fault;
        $seed === null || $this->set[$serial]['seed'] = $seed;
        $this->write();
    }

    public function clear(string $serial): void
    {
        unset($this->set[$serial]);
        $this->write();
    }

    private function write(): void
    {
        @mkdir(dirname($this->file), 0775, true);
        file_put_contents("$this->file.new", json_encode((object) $this->set, JSON_PRETTY_PRINT)."\n");
        rename("$this->file.new", $this->file);
    }
}
