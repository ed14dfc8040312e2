<?php

declare(strict_types=1);

namespace Yard\Core\Faults;

use Yard\Core\BadInput;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Evidence\ChoiceFeature;
use Yard\Core\Evidence\EvidenceModel;
use Yard\Core\Evidence\Hypothesis;

/**
 * What failed: every element weak, stuck, dead, every one-way free, locked or turned round, and what touches the whole
 * unit, ranked by the evidence of what each gear and shift does. A good gear clears a weak element only when it loads
 * it at least as hard as a bad gear does.
 */
final class GearDiagnosis
{
    /** From this probability on something is foretold, and so many of them are. */
    private const SURE = 0.4;

    private const TOLD = 4;

    /** @var non-empty-list<Fault> */
    private readonly array $faults;

    private readonly LikelihoodTable $table;

    private readonly FaultRows $rows;

    private readonly FaultReasons $reasons;

    /**
     * @param  array<string, float>  $weak  element, or thing of the whole unit => how much more often than others it
     *     fails in this family
     * @param  bool  $pairs  weigh every pair of weak elements too
     *
     * @throws BadInput at /weak, or at /elements for a train with too many one-way clutches
     */
    public function __construct(
        ApplyChart $chart,
        private readonly Symptoms $symptoms,
        private readonly array $weak = [],
        bool $pairs = false,
    ) {
        $this->table = LikelihoodTable::house();
        $outcomes = new FaultOutcomes($chart);
        $this->rows = new FaultRows($chart, $symptoms, $outcomes, $this->table);
        $this->reasons = new FaultReasons($symptoms, $this->rows, $outcomes);
        $this->faults = self::faults($chart, $pairs);
        $known = array_merge(...array_map(static fn (Fault $f): array => $f->names(), $this->faults));
        foreach (array_keys($weak) as $id) {
            in_array((string) $id, $known, true) ||
                throw new BadInput('unknown-element', "There is no element \"$id\".", "/weak/$id");
        }
    }

    /**
     * @return array{suspects: list<array<string, mixed>>, entropyBits: float} a suspect: element and fault (elements of
     *     a pair), posterior, because, class (the same for what predicts the same of all that was seen), clearedBy, and
     *     of the first ones what they foretell
     */
    public function ranked(int $foretold = 0): array
    {
        $hypotheses = $faults = [];
        foreach ($this->faults as $fault) {
            $faults[$fault->key()] = $fault;
            $hypotheses[$fault->key()] = new Hypothesis(
                $fault->key(),
                $this->prior($fault),
                $this->rows->expected($fault),
            );
        }
        $model = new EvidenceModel($this->symptoms->features($this->table), array_values($hypotheses));
        $ranking = $model->given($this->symptoms->all());
        $suspects = $classes = [];
        foreach ($ranking->hypotheses as $row) {
            $fault = $faults[$row->id];
            $clearedBy = $this->rows->clearedBy($fault);
            $predicts = json_encode($hypotheses[$row->id]->expect, JSON_THROW_ON_ERROR);
            $suspects[] =
                $fault->toArray() +
                [
                    'posterior' => $row->posterior,
                    'because' => $this->reasons->of($fault),
                    'class' => $classes[$predicts] ??= count($classes) + 1,
                ] +
                ($clearedBy === [] ? [] : ['clearedBy' => $clearedBy]) +
                (count($suspects) < $foretold ? ['foretells' => $this->foretells($fault)] : []);
        }

        return ['suspects' => $suspects, 'entropyBits' => $ranking->entropyBits];
    }

    /**
     * What a fault would make one see where nobody has looked yet, the surest first; what is well is not told.
     *
     * @return list<array{kind: string, what: string, state: string, likely: float}>
     */
    private function foretells(Fault $fault): array
    {
        $open = array_map(static fn (ChoiceFeature $f): string => $f->id, $this->symptoms->unseen($this->table));
        $out = [];
        foreach (array_intersect_key($this->rows->expected($fault, $open), array_flip($open)) as $feature => $states) {
            arsort($states);
            $state = (string) array_key_first($states);
            if (! in_array($state, Symptoms::WELL, true) && $states[$state] >= self::SURE) {
                [$kind, $what] = Symptoms::split((string) $feature);
                $out[] = compact('kind', 'what', 'state') + ['likely' => $states[$state]];
            }
        }
        usort($out, static fn (array $a, array $b): int => $b['likely'] <=> $a['likely']);

        return array_slice($out, 0, self::TOLD);
    }

    /**
     * The looks that would tell most for what they cost, best first.
     *
     * @return list<array{kind: string, what: string, gainBits: float, gainPerEffort: float}>
     */
    public function looks(int $most): array
    {
        $unseen = $this->symptoms->unseen($this->table);
        $open = array_map(static fn (ChoiceFeature $f): string => $f->id, $unseen);
        $hypotheses = array_map(fn (Fault $fault): Hypothesis => new Hypothesis(
            $fault->key(),
            $this->prior($fault),
            $this->rows->expected($fault, $open),
        ), $this->faults);
        $model = new EvidenceModel([...$this->symptoms->features($this->table), ...$unseen], $hypotheses);
        $looks = [];
        foreach (array_slice($model->given($this->symptoms->all())->next, 0, $most) as $look) {
            [$kind, $what] = Symptoms::split($look->feature);
            $looks[] = [
                'kind' => $kind,
                'what' => $what,
                'gainBits' => $look->gainBits,
                'gainPerEffort' => $look->gainPerEffort,
            ];
        }

        return $looks;
    }

    /** @return non-empty-list<Fault> everything that may be wrong by itself */
    public static function singles(ApplyChart $chart): array
    {
        $faults = array_map(Fault::ofUnit(...), array_keys(Fault::OF_THE_UNIT));
        foreach ($chart->train->elements as $id => $element) {
            $oneWay = $element->kind === 'one-way';
            $kinds = ['weak', ...($oneWay ? ['free', 'locked'] : ['stuck-on', 'stuck-off'])];
            if ($element->locks !== null) {
                $kinds[] = 'reversed';
            }
            foreach ($kinds as $kind) {
                $faults[] = Fault::ofElement((string) $id, $kind, $oneWay);
            }
        }

        return $faults;
    }

    /** @return non-empty-list<Fault> */
    private static function faults(ApplyChart $chart, bool $pairs): array
    {
        return $pairs ? [...self::singles($chart), ...self::pairs($chart)] : self::singles($chart);
    }

    /** @return list<Fault> every two elements that may be weak together */
    public static function pairs(ApplyChart $chart): array
    {
        $faults = [];
        $ids = array_map(strval(...), array_keys($chart->train->elements));
        foreach ($ids as $n => $id) {
            foreach (array_slice($ids, $n + 1) as $other) {
                $faults[] = Fault::weakPair($id, $other);
            }
        }

        return $faults;
    }

    /** A pair is as likely as both together, times what the table says of two at once. */
    private function prior(Fault $fault): float
    {
        $prior = $this->table->prior(count($fault->elements) > 1 ? 'pair' : $fault->priorRow());
        foreach ($fault->names() as $name) {
            $prior *= $this->weak[$name] ?? 1.0;
        }

        return $prior;
    }
}
