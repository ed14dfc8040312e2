<?php

declare(strict_types=1);

namespace Yard\Core;

/**
 * A cursor over decoded JSON that knows its JSON pointer (RFC 6901), refuses what does not fit in one sentence, and
 * remembers which fields were asked for, so that unknown fields can be named instead of passed over. Objects are
 * stdClass, or string-keyed arrays as a catalog holds them (an empty array is either).
 */
final class Input
{
    /** Characters of the longest name and text anybody means. */
    private const LONGEST_NAME = 300;

    private const LONGEST_TEXT = 3000;

    /**
     * @param  \ArrayObject<string, array<string, bool>>  $seen pointer of each opened object => its keys, true when
     *     read
     */
    private function __construct(
        private readonly mixed $value,
        public readonly string $path,
        private readonly \ArrayObject $seen,
    ) {
        if ($this->isObject() && ! isset($seen[$path])) {
            $keys = array_map(strval(...), array_keys($this->fields()));
            if (max([0, ...array_map(strlen(...), $keys)]) > self::LONGEST_NAME) {
                throw $this->fail('too-long', 'A field has a name of more than '.self::LONGEST_NAME.' characters.');
            }
            $seen[$path] = array_fill_keys($keys, false);
        }
    }

    public static function of(mixed $decoded): self
    {
        return new self($decoded, '', new \ArrayObject());
    }

    public static function fromJson(string $json): self
    {
        try {
            return self::of(json_decode($json, false, 128, JSON_THROW_ON_ERROR));
        } catch (\JsonException $e) {
            throw new BadInput('json', 'The input is not valid JSON: '.lcfirst($e->getMessage()).'.');
        }
    }

    /** @return list<string> pointers of fields that were given but that no calculator field reads */
    public function ignored(): array
    {
        $out = [];
        foreach ($this->seen as $path => $keys) {
            foreach ($keys as $key => $read) {
                if (! $read) {
                    $out[] = $path.'/'.self::escape((string) $key);
                }
            }
        }

        return $out;
    }

    public function raw(): mixed
    {
        return $this->value;
    }

    public function isObject(): bool
    {
        return $this->value instanceof \stdClass ||
            (is_array($this->value) && ($this->value === [] || ! array_is_list($this->value)));
    }

    public function has(string $key): bool
    {
        return $this->value instanceof \stdClass
            ? property_exists($this->value, $key)
            : is_array($this->value) && $this->isObject() && array_key_exists($key, $this->value);
    }

    public function fail(string $code, string $message): BadInput
    {
        return new BadInput($code, $message, $this->path);
    }

    /**
     * Runs what makes an object of this place; what it refuses is refused here.
     *
     * @template T
     *
     * @param  callable(): T  $make
     * @return T
     */
    public function within(callable $make): mixed
    {
        try {
            return $make();
        } catch (BadInput $e) {
            throw $e->under($this->path);
        }
    }

    public function at(string $key): self
    {
        $this->assertObject();
        if (! $this->has($key)) {
            throw new BadInput('missing', "The field \"$key\" is missing.", $this->path.'/'.self::escape($key));
        }

        return $this->child($key);
    }

    public function optional(string $key): ?self
    {
        $this->assertObject();

        return $this->has($key) ? $this->child($key) : null;
    }

    public function number(
        string $key,
        ?float $min = null,
        ?float $max = null,
        ?float $above = null,
        ?float $below = null,
    ): float {
        return $this->at($key)->asNumber($min, $max, $above, $below);
    }

    /** The number, or what stands for it where the field is not there. */
    public function numberOr(
        string $key,
        float $absent,
        ?float $min = null,
        ?float $max = null,
        ?float $above = null,
        ?float $below = null,
    ): float {
        return $this->numberIf($key, $min, $max, $above, $below) ?? $absent;
    }

    /** The number, or null where the field is not there. */
    public function numberIf(
        string $key,
        ?float $min = null,
        ?float $max = null,
        ?float $above = null,
        ?float $below = null,
    ): ?float {
        return $this->has($key) ? $this->number($key, $min, $max, $above, $below) : null;
    }

    /** The text, or what stands for it where the field is not there. */
    public function stringOr(string $key, string $absent = ''): string
    {
        return $this->has($key) ? $this->string($key) : $absent;
    }

    public function integer(string $key, ?int $min = null, ?int $max = null): int
    {
        return $this->at($key)->asInteger($min, $max);
    }

    public function string(string $key): string
    {
        return $this->at($key)->asString();
    }

    /** A text that must not be blank: a name, an id. */
    public function name(?string $key = null): string
    {
        if ($key === null) {
            return $this->path === '' ? 'The input' : 'The field "'.$this->lastKey().'"';
        }
        $text = $this->at($key);
        if (trim($text->asString()) === '') {
            throw $text->fail('blank', "The field \"$key\" must not be blank.");
        }

        return $text->asString();
    }

    /** @param  list<string>  $allowed */
    public function choice(string $key, array $allowed): string
    {
        $in = $this->at($key);
        $value = $in->asString();
        if (! in_array($value, $allowed, true)) {
            throw $in->fail(
                'choice',
                "The field \"$key\" must be one of ".implode(', ', $allowed).", not \"$value\".",
            );
        }

        return $value;
    }

    public function bool(string $key): bool
    {
        $in = $this->at($key);
        if (! is_bool($in->value)) {
            throw $in->fail('type', "The field \"$key\" must be true or false, not ".$in->describe().'.');
        }

        return $in->value;
    }

    /** @return list<self> */
    public function list(string $key, int $atLeast = 0): array
    {
        $in = $this->at($key);
        $items = $in->asList();
        if (count($items) < $atLeast) {
            throw $in->fail(
                'too-few',
                "The field \"$key\" needs at least ".($atLeast === 1 ? 'one entry' : "$atLeast entries").'.',
            );
        }

        return $items;
    }

    /**
     * A list of numbers, read without an Input a number: traces hold hundreds of thousands.
     *
     * @return list<float>
     */
    public function numbers(string $key): array
    {
        $in = $this->at($key);
        if (! is_array($in->value) || ! array_is_list($in->value)) {
            throw $in->fail('type', $in->name().' must be a list of numbers, not '.$in->describe().'.');
        }
        $out = [];
        foreach ($in->value as $i => $n) {
            if ((! is_int($n) && ! is_float($n)) || ! is_finite((float) $n)) {
                (new self($n, $in->path.'/'.$i, $this->seen))->asNumber();
            }
            $out[] = (float) (is_scalar($n) ? $n : 0.0);
        }

        return $out;
    }

    /** @return list<string> a list of texts that may be left out */
    public function strings(string $key): array
    {
        return $this->optional($key)?->asStrings() ?? [];
    }

    /** @return array<string, self> */
    public function map(string $key): array
    {
        return $this->at($key)->asMap();
    }

    public function asNumber(
        ?float $min = null,
        ?float $max = null,
        ?float $above = null,
        ?float $below = null,
    ): float {
        if (! is_int($this->value) && ! is_float($this->value)) {
            $hint =
                is_string($this->value) && preg_match('/^\s*[-+]?\d+,\d+\s*$/', $this->value) === 1
                    ? ' Write a decimal point, '.str_replace(',', '.', trim($this->value)).', without quotes.'
                    : '';
            throw $this->fail('type', $this->name().' must be a number, not '.$this->describe().'.'.$hint);
        }
        $n = (float) $this->value;
        $this->assertMeant($n, ($min ?? $above) !== null);
        $wrong = match (true) {
            $min !== null && $n < $min => 'at least '.self::show($min),
            $max !== null && $n > $max => 'at most '.self::show($max),
            $above !== null && $n <= $above => 'greater than '.self::show($above),
            $below !== null && $n >= $below => 'less than '.self::show($below),
            default => null,
        };
        if ($wrong !== null) {
            throw $this->fail('range', $this->name()." must be $wrong, not ".self::show($n).'.');
        }

        return $n;
    }

    /** Numbers that are none, or that nobody measures. */
    private function assertMeant(float $n, bool $isSize): void
    {
        $wrong = match (true) {
            ! is_finite($n) => 'is too large to be a number here',
            $n !== 0.0 && abs($n) < PHP_FLOAT_MIN => 'is too small to be a number anybody measures',
            $n === 0.0 && $isSize && fdiv(1.0, $n) < 0.0 => 'is minus zero, which is no size',
            default => null,
        };
        if ($wrong !== null) {
            throw $this->fail('range', $this->name()." $wrong.");
        }
    }

    public function asInteger(?int $min = null, ?int $max = null): int
    {
        $n = $this->asNumber($min, $max);
        if (floor($n) !== $n || abs($n) > 9.0e15) {
            throw $this->fail('type', $this->name().' must be a whole number, not '.self::show($n).'.');
        }

        return (int) $n;
    }

    public function asString(): string
    {
        if (! is_string($this->value)) {
            throw $this->fail('type', $this->name().' must be text, not '.$this->describe().'.');
        }
        if (strlen($this->value) > self::LONGEST_TEXT) {
            throw $this->fail('too-long', $this->name().' has more than '.self::LONGEST_TEXT.' characters.');
        }

        return $this->value;
    }

    /** @return list<self> */
    public function asList(): array
    {
        if (! is_array($this->value) || ! array_is_list($this->value)) {
            throw $this->fail('type', $this->name().' must be a list, not '.$this->describe().'.');
        }
        $out = [];
        foreach ($this->value as $i => $item) {
            $out[] = new self($item, $this->path.'/'.$i, $this->seen);
        }

        return $out;
    }

    /** @return list<string> read without an Input a text: catalogs hold hundreds of rules */
    public function asStrings(): array
    {
        if (! is_array($this->value) || ! array_is_list($this->value)) {
            throw $this->fail('type', $this->name().' must be a list, not '.$this->describe().'.');
        }
        $out = [];
        foreach ($this->value as $i => $item) {
            $out[] = is_string($item) && strlen($item) <= self::LONGEST_TEXT
                ? $item
                : (new self($item, $this->path.'/'.$i, $this->seen))->asString();
        }

        return $out;
    }

    /** @return array<string, self> */
    public function asMap(): array
    {
        $this->assertObject();
        $out = [];
        foreach (array_keys($this->fields()) as $key) {
            $out[(string) $key] = $this->child((string) $key);
        }

        return $out;
    }

    /** The number as typed: the shortest decimal that reads back as the same double. */
    public function asDecimal(?float $min = null): Decimal
    {
        return Decimal::ofFloat($this->asNumber($min));
    }

    /** Shortest decimal notation of a double, for messages. */
    public static function show(float $n): string
    {
        return (string) json_encode($n);
    }

    private function child(string $key): self
    {
        $this->seen[$this->path][$key] = true;

        return new self($this->fields()[$key], $this->path.'/'.self::escape($key), $this->seen);
    }

    /** @return array<mixed> */
    private function fields(): array
    {
        return $this->value instanceof \stdClass ? get_object_vars($this->value) : (array) $this->value;
    }

    private function assertObject(): void
    {
        if (! $this->isObject()) {
            throw $this->fail('type', $this->name().' must be an object, not '.$this->describe().'.');
        }
    }

    private function lastKey(): string
    {
        return strtr(substr((string) strrchr($this->path, '/'), 1), ['~1' => '/', '~0' => '~']);
    }

    private function describe(): string
    {
        return match (true) {
            $this->value === null => 'null',
            is_bool($this->value) => $this->value ? 'true' : 'false',
            is_string($this->value) => 'the text "'.mb_strimwidth($this->value, 0, 40, '…').'"',
            is_int($this->value), is_float($this->value) => self::show((float) $this->value),
            is_array($this->value) && array_is_list($this->value) => 'a list',
            default => 'an object',
        };
    }

    private static function escape(string $key): string
    {
        return strtr($key, ['~' => '~0', '/' => '~1']);
    }
}
