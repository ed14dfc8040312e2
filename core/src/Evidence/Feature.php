<?php

declare(strict_types=1);

namespace Yard\Core\Evidence;

use Yard\Core\BadInput;
use Yard\Core\Input;

/**
 * Something that can be observed, at an effort, with a reliability: the chance that the observation means what it says.
 */
abstract class Feature
{
    protected function __construct(
        public readonly string $id,
        public readonly float $reliability,
        public readonly float $effort,
    ) {
    }

    public static function read(Input $in): self
    {
        $id = $in->name('id');
        $reliability = $in->numberOr('reliability', 1.0, above: 0.0, max: 1.0);
        $effort = $in->numberOr('effort', 1.0, above: 0.0);
        if (! $in->has('kind') || $in->choice('kind', ['choice', 'number']) === 'choice') {
            $values = array_map(static fn (Input $v): string => $v->asString(), $in->list('values', 1));

            return $in->within(static fn (): self => new ChoiceFeature($id, $values, $reliability, $effort));
        }
        $range = $in->has('range') ? $in->numbers('range') : null;
        $tolerance = $in->numberOr('tolerance', 0.0, min: 0.0);

        return $in->within(static fn (): self => new NumberFeature($id, $range, $tolerance, $reliability, $effort));
    }

    /** @return array<string, float> what a hypothesis expects: value => weight, or mean and sd */
    abstract public function readExpectation(Input $in): array;

    /**
     * What a hypothesis expects of this feature, ready to be reckoned with; null stands for "doesn't mention it".
     *
     * @param  array<string, float>|null  $given
     *
     * @throws BadInput
     */
    abstract public function expectation(?array $given): mixed;

    /** @throws BadInput for what cannot be seen here */
    abstract public function assertPossible(string|float $observed): void;

    /** P(observation | expectation), a density for numbers. */
    abstract public function likelihood(mixed $expectation, string|float $observed): float;

    /**
     * The likelihood above which an observation speaks for a hypothesis, below which against it.
     *
     * @param  list<mixed>  $expectations
     * @param  list<float>  $priors
     */
    abstract public function neutral(array $expectations, array $priors, string|float $observed): float;

    /**
     * The possible outcomes with their probability under each hypothesis, to weigh the feature before it is observed.
     *
     * @param  list<mixed>  $expectations
     * @param  list<float>  $weights  current probability of each hypothesis
     * @return array{outcomes: list<list<float>>, binEdges?: list<float>} outcome => hypothesis => probability
     */
    abstract public function outcomes(array $expectations, array $weights): array;

    /** Whether the hypothesis lists only some of the values. */
    public function isPartial(mixed $expectation): bool
    {
        return false;
    }
}
