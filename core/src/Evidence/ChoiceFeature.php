<?php

declare(strict_types=1);

namespace Yard\Core\Evidence;

use Yard\Core\BadInput;
use Yard\Core\Input;

/** A feature with a list of values: P(v|h) = reliability p(v|h) + (1 - reliability) / |values|. */
final class ChoiceFeature extends Feature
{
    /**
     * @param  list<string>  $values
     *
     * @throws BadInput at /values
     */
    public function __construct(
        string $id,
        private readonly array $values,
        float $reliability = 1.0,
        float $effort = 1.0,
    ) {
        parent::__construct($id, $reliability, $effort);
        $twice = array_keys(array_diff_key($values, array_unique($values)));
        if ($twice !== []) {
            throw new BadInput('duplicate', "The value \"{$values[$twice[0]]}\" is listed twice.", "/values/$twice[0]");
        }
        $values !== [] || throw new BadInput('too-few', 'The field "values" needs at least one entry.', '/values');
    }

    public function readExpectation(Input $in): array
    {
        return array_map(static fn (Input $p): float => $p->asNumber(min: 0.0), $in->asMap());
    }

    /** @return array<int, float>|null probability of each value; entry -1 marks a list that leaves values out */
    public function expectation(?array $given): ?array
    {
        if ($given === null) {
            return null;
        }
        foreach (array_keys($given) as $value) {
            if (! in_array((string) $value, $this->values, true)) {
                throw new BadInput('unknown-value', "The feature \"$this->id\" has no value \"$value\".", "/$value");
            }
        }
        $total = array_sum($given);
        if ($total <= 0.0) {
            throw new BadInput('likelihood', "At least one value of \"$this->id\" must be possible.");
        }

        return array_map(static fn (string $v): float => ($given[$v] ?? 0.0) / $total, $this->values) +
            (count($given) < count($this->values) ? [-1 => 0.0] : []);
    }

    public function isPartial(mixed $expectation): bool
    {
        return is_array($expectation) && isset($expectation[-1]);
    }

    public function assertPossible(string|float $observed): void
    {
        if (! in_array($observed, $this->values, true)) {
            $values = implode(', ', $this->values);
            throw new BadInput(
                'unknown-value',
                "The feature \"$this->id\" has no value \"$observed\"; it is one of $values.",
            );
        }
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
