<?php

declare(strict_types=1);

namespace Yard\Core\Evidence;

use Yard\Core\Input;

/** A feature with a list of values: P(v|h) = reliability p(v|h) + (1 - reliability) / |values|. */
final class ChoiceFeature extends Feature
{
    /** @var list<string> */
    private array $values = [];

    public function __construct(string $id, float $reliability, float $effort, Input $in)
    {
        parent::__construct($id, $reliability, $effort);
        foreach ($in->list('values', 1) as $value) {
            if (in_array($value->asString(), $this->values, true)) {
                throw $value->fail('duplicate', "The value \"{$value->asString()}\" is listed twice.");
            }
            $this->values[] = $value->asString();
        }
    }

    /** @return array<int, float>|null probability of each value; entry -1 marks a list that leaves values out */
    public function expectation(?Input $in): ?array
    {
        if ($in === null) {
            return null;
        }
        $given = [];
        foreach ($in->asMap() as $value => $p) {
            if (! in_array((string) $value, $this->values, true)) {
                throw $p->fail('unknown-value', "The feature \"$this->id\" has no value \"$value\".");
            }
            $given[$value] = $p->asNumber(min: 0.0);
        }
        $total = array_sum($given);
        if ($total <= 0.0) {
            throw $in->fail('likelihood', "At least one value of \"$this->id\" must be possible.");
        }

        return array_map(static fn (string $v): float => ($given[$v] ?? 0.0) / $total, $this->values) +
            (count($given) < count($this->values) ? [-1 => 0.0] : []);
    }

    public function isPartial(mixed $expectation): bool
    {
        return is_array($expectation) && isset($expectation[-1]);
    }

    public function observation(Input $in): string
    {
        $value = $in->asString();
        if (! in_array($value, $this->values, true)) {
            throw $in->fail(
                'unknown-value',
                "The feature \"$this->id\" has no value \"$value\"; it is one of ".
                    implode(', ', $this->values).
                    '.',
            );
        }

        return $value;
    }

    public function likelihood(mixed $expectation, string|float $observed): float
    {
        return $this->probability($expectation, (int) array_search($observed, $this->values, true));
    }

    public function neutral(array $expectations, array $priors, string|float $observed): float
    {
        return 1.0 / count($this->values);
    }

    public function outcomes(array $expectations, array $weights): array
    {
        $outcomes = [];
        foreach (array_keys($this->values) as $v) {
            $outcomes[] = array_map(fn (mixed $e): float => $this->probability($e, $v), $expectations);
        }

        return ['outcomes' => $outcomes];
    }

    private function probability(mixed $expectation, int $value): float
    {
        $uniform = 1.0 / count($this->values);
        $p = is_array($expectation) && is_float($expectation[$value] ?? null) ? $expectation[$value] : $uniform;

        return $this->reliability * $p + (1.0 - $this->reliability) * $uniform;
    }
}
