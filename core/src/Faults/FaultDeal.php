<?php

declare(strict_types=1);

namespace Yard\Core\Faults;

use Yard\Core\BadInput;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Evidence\ChoiceFeature;

/**
 * A unit with a hidden fault, or two elements weak together, to practise on: dealt by a seed as often as faults come,
 * and answering every look as the likelihood table says such units answer. The same seed always is the same unit.
 */
final readonly class FaultDeal
{
    private const DIGITS = 13; // of a hash, in 16s: 52 bits

    private Fault $fault;

    /** @var array<int, Fault> */
    private array $faults;

    private LikelihoodTable $table;

    /** @var array<string, ChoiceFeature> */
    private array $looks;

    public function __construct(private ApplyChart $chart, private int $seed, private bool $two = false)
    {
        $this->table = LikelihoodTable::house();
        $this->faults = array_filter(
            $two ? GearDiagnosis::pairs($chart) : GearDiagnosis::singles($chart),
            static fn (Fault $f): bool => $f->kind !== 'sound',
        );
        $priors = array_map(fn (Fault $f): float => $two ? 1.0 : $this->table->prior($f->priorRow()), $this->faults);
        $this->fault = $this->faults[$this->drawn('fault', $priors)];
        $this->looks = array_column((new Symptoms($chart, []))->unseen($this->table), null, 'id');
    }

    /** @return array{element: string, fault: string} what is wrong with it; of two elements "C1+C3" */
    public function hidden(): array
    {
        return self::named($this->fault->toArray());
    }

    /** @return list<array{element: string, fault: string}> everything that may be named */
    public function causes(): array
    {
        return array_map(static fn (Fault $f): array => self::named($f->toArray()), array_values($this->faults));
    }

    /**
     * @param  array<string, mixed>  $suspect
     * @return array{element: string, fault: string}
     */
    private static function named(array $suspect): array
    {
        $elements = array_filter((array) ($suspect['elements'] ?? $suspect['element']), is_string(...));

        return ['element' => implode('+', $elements), 'fault' => is_string($suspect['fault']) ? $suspect['fault'] : ''];
    }

    /** @return list<array{kind: string, what: string, effort: float}> what can be looked at, and what it costs */
    public function looks(): array
    {
        $out = [];
        foreach ($this->looks as $look) {
            [$kind, $what] = Symptoms::split($look->id);
            $out[] = ['kind' => $kind, 'what' => $what, 'effort' => $look->effort];
        }

        return $out;
    }

    /**
     * @return array{state: string, effort: float}
     *
     * @throws BadInput where there is no such look
     */
    public function shows(string $kind, string $what): array
    {
        $id = "$kind:$what";
        $look = $this->looks[$id] ?? throw new BadInput('unknown-look', 'There is no such look.', '/what');
        $rows = new FaultRows(
            $this->chart,
            new Symptoms($this->chart, []),
            new FaultOutcomes($this->chart),
            $this->table,
        );
        $shares = $rows->expected($this->fault, [$id])[$id];

        return ['state' => (string) $this->drawn($id, $shares), 'effort' => $look->effort];
    }

    /**
     * What the engine makes of the same looks, and where the named cause and the true one stand in it.
     *
     * @param  list<array{kind: string, what: string, state: string}>  $seen
     * @return array{fault: array<string, mixed>, right: bool, alike: bool, posterior: mixed, leader: array<string,
     *     mixed>} alike: it predicts the same of all that was looked at; posterior: of the true cause, a number
     */
    public function judged(array $seen, string $element, string $fault): array
    {
        $ranked = (new GearDiagnosis($this->chart, Symptoms::ofLooks($this->chart, $seen), [], $this->two))->ranked();
        $true = $this->hidden();
        $of = static function (array $of) use ($ranked): ?array {
            foreach ($ranked['suspects'] as $s) {
                if (self::named($s) === $of) {
                    return $s;
                }
            }

            return null;
        };
        $named = $of(['element' => $element, 'fault' => $fault]) ??
            throw new BadInput('unknown-fault', 'Nothing can fail like that here.', '/fault');
        $hidden = $of($true) ?? throw new \LogicException('What is hidden is among the suspects.');

        return [
            'fault' => $true,
            'right' => $named === $hidden,
            'alike' => $named['class'] === $hidden['class'],
            'posterior' => $hidden['posterior'],
            'leader' => self::named($ranked['suspects'][0]) + $ranked['suspects'][0],
        ];
    }

    /**
     * @template K of array-key
     *
     * @param  array<K, float>  $weights
     * @return K
     */
    private function drawn(string $of, array $weights): int|string
    {
        $hash = hash('sha256', "$this->seed $of");
        $left = hexdec(substr($hash, 0, self::DIGITS)) / 16 ** self::DIGITS * array_sum($weights);
        $last = array_key_last($weights);
        foreach ($weights as $key => $weight) {
            if (($left -= $weight) < 0.0) {
                return $key;
            }
        }

        return $last ?? throw new \LogicException('Nothing to draw from.');
    }
}
