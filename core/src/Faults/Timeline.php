<?php

declare(strict_types=1);

namespace Yard\Core\Faults;

/**
 * What began when in the life of a unit, as told and as the plates show it: the first failure and what followed, what
 * was done before it and after, and whether linings fit the distance. That something was fitted and that a symptom was
 * cured stay two facts.
 *
 * @phpstan-type Entry array{km: float, kind: string, said: string}
 */
final readonly class Timeline
{
    public const KINDS = ['complaint', 'cured', 'service', 'upgrade', 'rebuild'];

    /** Of so many packs graded, and such a share of them sound, plates say something of their age. */
    private const PACKS = 3;

    private const SOUND = 0.8;

    /** @var list<Entry> the earliest first */
    private array $entries;

    /**
     * @param  list<Entry>  $entries
     * @param  float|null  $now  km at intake
     * @param  int  $graded  packs that were looked at, and how many of them were sound
     * @param  float  $oldPlates  km at which hardly worn linings are no longer the first ones
     * @param  float  $fluidGap  km without a fluid change that are worth a word
     */
    public function __construct(
        array $entries,
        private ?float $now,
        private int $graded,
        private int $sound,
        private float $oldPlates,
        private float $fluidGap,
    ) {
        usort($entries, static fn (array $a, array $b): int => $a['km'] <=> $b['km']);
        $this->entries = $entries;
    }

    /** @return list<string> */
    public function says(): array
    {
        return array_values(array_filter([
            ...$this->complaints(),
            ...array_map($this->upgrade(...), $this->of('upgrade')),
            $this->wear(),
            $this->fluid(),
        ]));
    }

    /** @return list<Entry> */
    private function of(string $kind): array
    {
        return array_values(array_filter($this->entries, static fn (array $e): bool => $e['kind'] === $kind));
    }

    /** @return list<string> */
    private function complaints(): array
    {
        $complaints = $this->of('complaint');
        $out = [];
        foreach ($complaints as $n => $complaint) {
            $later = $complaint['km'] - $complaints[0]['km'];
            $out[] = $n === 0
                ? "It began at {$this->km($complaint['km'])}: {$complaint['said']}."
                : "{$this->km($later)} later: {$complaint['said']}; look whether the first made the second.";
        }

        return $out;
    }

    /** @param  Entry  $upgrade */
    private function upgrade(array $upgrade): string
    {
        $first = $this->of('complaint')[0] ?? null;
        $at = ucfirst($upgrade['said']).", fitted at {$this->km($upgrade['km'])}";
        if ($first === null) {
            return "$at; nothing is told of what was felt before.";
        }
        if ($upgrade['km'] <= $first['km']) {
            return "$at, was in when it began: it did not keep it away.";
        }
        foreach ($this->of('cured') as $cured) {
            if ($cured['km'] >= $upgrade['km']) {
                return "$at after it began; at {$this->km($cured['km'])} it is said: {$cured['said']}.";
            }
        }

        return "$at after it began; nobody says that it cured anything.";
    }

    private function wear(): ?string
    {
        $rebuilt = $this->of('rebuild');
        $last = $rebuilt === [] ? null : $rebuilt[count($rebuilt) - 1];
        if ($last !== null) {
            return $this->now === null ? null
                : "Its linings carry {$this->km($this->now - $last['km'])} since {$last['said']}.";
        }
        $hardlyWorn = $this->graded >= self::PACKS && $this->sound >= self::SOUND * $this->graded;

        return $hardlyWorn && $this->now !== null && $this->now >= $this->oldPlates
            ? "Linings of $this->sound of $this->graded packs are sound at {$this->km($this->now)}: "
                .'somebody was in here before, though nobody told.'
            : null;
    }

    private function fluid(): ?string
    {
        if ($this->now === null || $this->entries === []) {
            return null;
        }
        $changed = array_column([...$this->of('service'), ...$this->of('rebuild')], 'km');
        sort($changed);
        $gap = 0.0;
        foreach ([0.0, ...$changed] as $n => $km) {
            $gap = max($gap, ($changed[$n] ?? $this->now) - $km);
        }

        return $gap > $this->fluidGap ? "No fluid change is told of for {$this->km($gap)}." : null;
    }

    private function km(float $km): string
    {
        return number_format($km, 0, '.', ' ').' km';
    }
}
