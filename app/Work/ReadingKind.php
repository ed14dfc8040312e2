<?php

namespace App\Work;

/** What is measured at the bench, and where the frozen specification lists it. */
enum ReadingKind: string
{
    case Pack = 'pack';
    case EndPlay = 'end-play';
    case AirCheck = 'air-check';
    case Torque = 'torque';
    case BenchTest = 'bench-test';

    /** The list of the specification that holds the places of this kind. */
    public function list(): string
    {
        return match ($this) {
            self::Pack => 'packs',
            self::EndPlay => 'endPlays',
            self::AirCheck => 'airChecks',
            self::Torque => 'fasteners',
            self::BenchTest => 'benchTests',
        };
    }

    /** What is measured there, in a sentence. */
    public function inWords(): string
    {
        return match ($this) {
            self::Pack => 'clearance',
            self::EndPlay => 'end play',
            self::AirCheck => 'pressure loss',
            self::Torque => 'torque',
            self::BenchTest => 'reading',
        };
    }

    /** Kind of quantity, as gauges name it; a test at the bench has its own. */
    public function quantity(): string
    {
        return match ($this) {
            self::Pack, self::EndPlay => 'length',
            self::AirCheck => 'pressure',
            self::Torque => 'torque',
            self::BenchTest => '',
        };
    }

    /** Whether selective parts bring it into its window. */
    public function isFitted(): bool
    {
        return $this === self::Pack || $this === self::EndPlay;
    }

    /**
     * @param  array<string, mixed>  $spec  frozen specification
     * @return list<array<string, mixed>>
     */
    public function places(array $spec): array
    {
        return $spec[$this->list()] ?? [];
    }
}
