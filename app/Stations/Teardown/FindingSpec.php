<?php

namespace App\Stations\Teardown;

use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Shop\Models\Gauge;
use Yard\Core\Inspection\BurnMap;

/** A part of the inspection list: what it may look like, what is measured on it, whether its plates are graded. */
final readonly class FindingSpec
{
    /** A pack nobody counted has at most so many plates. */
    private const MOST_PLATES = 30;

    /** What becomes of a part that is not renewed. */
    private const LIVES_ON = ['reuse', 'recondition', 'shelf'];

    /**
     * @param  list<string>  $conditions  the first is healthy, the last the worst
     * @param  array{what: string, unit: string, window: array{min: float, max: float}, gauge: string}|null  $measure
     * @param  string|null  $pack  element whose plates are graded one by one
     * @param  string|null  $always  why it is renewed whatever it looks like
     * @param  string  $kind  of part, in the vocabulary part-kinds
     * @param  list<string>  $pieces  conditions in which pieces of it are loose
     * @param  string  $at  where in what was sent its fields stand
     */
    public function __construct(
        public string $name,
        public array $conditions,
        public ?array $measure,
        public ?string $pack,
        public ?string $always,
        public string $kind,
        public array $pieces,
        private string $at,
    ) {
    }

    /**
     * @param  array<string, mixed>  $body  of the catalog
     * @param  string  $at  where in what was sent its fields stand
     */
    public static function read(string $name, array $body, string $at = ''): self
    {
        return new self(
            $name,
            $body['conditions'],
            $body['measure'] ?? null,
            $body['plates'] ?? null,
            $body['always'] ?? null,
            $body['kind'] ?? '',
            $body['pieces'] ?? [],
            $at,
        );
    }

    /** @throws Refusal for a condition the part cannot be in */
    public function grade(string $condition, string $pointer): int
    {
        $grade = array_search($condition, $this->conditions, true);
        if ($grade === false) {
            $choices = implode(', ', $this->conditions);
            throw Refusal::at(
                $this->at.$pointer,
                "\"$condition\" is no condition of this part; choose one of $choices.",
            );
        }

        return $grade;
    }

    /**
     * The condition of the whole: as said, or that of its worst plate.
     *
     * @param  list<string>  $plates  from the piston outwards
     *
     * @throws Refusal when plates are graded that are none, or the whole is said to be better than its worst plate
     */
    public function condition(string $said, array $plates): string
    {
        if ($plates === []) {
            $this->grade($said, '/condition');

            return $said;
        }
        if ($this->pack === null || count($plates) > self::MOST_PLATES) {
            throw Refusal::at("$this->at/plates", "\"$this->name\" has no such plates to grade.");
        }
        $worst = $this->conditions[$this->burnMap($plates)->worst()];
        if ($said !== '' && $said !== $worst) {
            throw Refusal::at("$this->at/condition", "Its worst plate is \"$worst\"; the pack cannot be \"$said\".");
        }

        return $worst;
    }

    /** @param  list<string>  $plates */
    public function burnMap(array $plates): BurnMap
    {
        return new BurnMap(array_map(
            fn (string $plate, int $n) => $this->grade($plate, "/plates/$n"),
            $plates,
            array_keys($plates),
        ));
    }

    /** @param  list<string>  $plates */
    public function burnSentence(array $plates): ?string
    {
        $map = $this->burnMap($plates);

        return $plates === [] ? null : $map->pattern()->sentence($map->worst() === 0);
    }

    /**
     * What was measured, as it is kept.
     *
     * @return array{measured: ?float, measured_typed: ?string, measured_inside: ?bool, gauge_id: ?int}
     *
     * @throws Refusal where a number is due and missing, or the gauge cannot have shown it
     */
    public function measured(string $typed, ?string $gauge): array
    {
        if ($this->measure === null) {
            return ['measured' => null, 'measured_typed' => null, 'measured_inside' => null, 'gauge_id' => null];
        }
        $unit = $this->measure['unit'];
        if ($typed === '') {
            $what = ucfirst($this->measure['what']);
            throw Refusal::at("$this->at/reading", "$what is measured here: give it in $unit.");
        }
        $kind = $unit === 'N.m' ? 'torque' : 'length';
        $reading = TypedQuantity::parse($typed, $kind, $unit, "$this->at/reading");
        $value = $reading->in($unit);
        $window = $this->measure['window'];

        return [
            'measured' => $value,
            'measured_typed' => $reading->typed,
            'measured_inside' => $value >= $window['min'] - 1e-9 && $value <= $window['max'] + 1e-9,
            'gauge_id' => Gauge::thatShowed($gauge, $kind, $reading, $this->at)->id,
        ];
    }

    /**
     * Whether every piece of a broken part was found, as it is kept.
     *
     * @return 'whole'|'missing'|null  null: nothing of it is loose
     *
     * @throws Refusal when pieces are loose and nobody says whether all are there
     */
    public function piecesFound(string $condition, ?string $said): ?string
    {
        if (! in_array($condition, $this->pieces, true)) {
            return null;
        }

        return match ($said) {
            'whole', 'missing' => $said,
            default => throw Refusal::at(
                "$this->at/pieces",
                "\"$this->name\" is $condition: lay the pieces together and say whether all of them are there.",
            ),
        };
    }

    /** @throws Refusal when a part that is renewed as a rule, or is outside its window, lives on and nobody says why */
    public function assertReuse(string $disposition, ?bool $inside, string $note): void
    {
        if ($this->always !== null && in_array($disposition, self::LIVES_ON, true) && trim($note) === '') {
            throw Refusal::at('/note', "\"$this->name\": $this->always Say in the note why it is not renewed now.");
        }
        if ($inside === false && $disposition === 'reuse' && trim($note) === '') {
            throw Refusal::at('/note', "\"$this->name\" is outside its window: say in the note why it is used again.");
        }
    }
}
