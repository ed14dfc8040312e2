<?php

namespace App\Catalog\Read;

use Yard\Core\BadInput;
use Yard\Core\Evidence\EvidenceModel;
use Yard\Core\Evidence\Feature;
use Yard\Core\Evidence\Hypothesis;
use Yard\Core\Evidence\NextLook;
use Yard\Core\Evidence\RankedHypothesis;
use Yard\Core\Input;

/** A table of what each explanation leads one to expect, as the catalog writes it. */
final readonly class EvidenceTable
{
    /**
     * @param  list<array<string, mixed>>  $features
     * @param  array<string, array<string, mixed>>  $hypotheses  by id
     */
    private function __construct(public array $features, public array $hypotheses)
    {
    }

    /** @param  array<string, mixed>  $body  features and hypotheses */
    public static function read(array $body): self
    {
        return new self($body['features'], array_column($body['hypotheses'], null, 'id'));
    }

    /** @throws BadInput where the table is none */
    public function model(): EvidenceModel
    {
        $explain = array_map(
            fn (array $h) => new Hypothesis(
                $h['id'],
                (float) $h['prior'],
                array_map(fn (array $expect) => array_map(floatval(...), $expect), $h['expect']),
            ),
            array_values($this->hypotheses),
        );
        assert($explain !== []);

        return new EvidenceModel(array_map(fn (array $f) => Feature::read(Input::of($f)), $this->features), $explain);
    }

    /**
     * @param  array<string, string>  $observed
     * @param  list<string>  $with  fields of the table that go with each explanation
     * @return array{ranking: list<array<string, mixed>>, next: list<NextLook>, impossible: ?string}
     */
    public function ranked(array $observed, array $with): array
    {
        $model = $this->model();
        try {
            $ranking = $model->given($observed);
            $impossible = null;
        } catch (BadInput $e) {
            $ranking = $model->given([]);
            $impossible = $e->getMessage();
        }

        return [
            'ranking' => array_map(
                fn (RankedHypothesis $h) => array_intersect_key($this->hypotheses[$h->id], array_flip($with)) + [
                    'id' => $h->id,
                    'name' => $this->hypotheses[$h->id]['name'],
                    'posterior' => $h->posterior,
                    'supports' => $h->supports,
                    'contradicts' => $h->contradicts,
                ],
                $ranking->hypotheses,
            ),
            'next' => $ranking->next,
            'impossible' => $impossible,
        ];
    }
}
