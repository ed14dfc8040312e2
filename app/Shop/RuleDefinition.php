<?php

namespace App\Shop;

/** What a house rule asks, as it is shipped: its kind, unit, limits, default, source, and what it changes. */
final readonly class RuleDefinition
{
    private const FILE = 'database/house-rules.json';

    /**
     * @param  string  $station  station or room it belongs to
     * @param  string  $kind  "choice", "number" or "quantity" (typed with its unit)
     * @param  string|null  $quantity  kind of quantity, as units.parse names it
     * @param  list<array{value: string, means: string}>  $choices
     */
    private function __construct(
        public string $code,
        public string $station,
        public string $question,
        public string $kind,
        public ?string $quantity,
        public string $unit,
        public string $default,
        public ?float $min,
        public ?float $max,
        public array $choices,
        public string $source,
        public string $changes,
    ) {
    }

    /** @return array<string, self> by code, in the order they are shown */
    public static function all(): array
    {
        /** @var array<string, self>|null $all */
        static $all = null;
        if ($all === null) {
            $json = json_decode((string) file_get_contents(base_path(self::FILE)), true, 8, JSON_THROW_ON_ERROR);
            $all = [];
            foreach ($json['rules'] as $rule) {
                $all[$rule['code']] = new self(...$rule);
            }
        }

        return $all;
    }

    /** @throws \LogicException when there is no such rule */
    public static function of(string $code): self
    {
        return self::all()[$code] ?? throw new \LogicException("There is no house rule \"$code\".");
    }
}
